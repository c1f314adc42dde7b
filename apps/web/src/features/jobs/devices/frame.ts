/** The frame that devices are at work on. */
export interface WorkedFrame {
  job: string;
  shot: string;
  plate?: string;
}
