export const radians = (degrees: number): number => (degrees * Math.PI) / 180;
export const degrees = (angleRad: number): number => (angleRad * 180) / Math.PI;
