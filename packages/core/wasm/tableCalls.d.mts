export function tableCalls(source: string): string;
