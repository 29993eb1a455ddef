/** A rectangle in points; x and y are its lower left corner. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface Extent {
  readonly width: number;
  readonly height: number;
}
