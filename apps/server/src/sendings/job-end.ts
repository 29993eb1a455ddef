/** How a job of a printer ended, as it told; its sheets null where it counts none. */
export interface JobEnd {
  readonly state: 'completed' | 'canceled' | 'aborted';
  readonly sheets: number | null;
  readonly message: string | null;
}
