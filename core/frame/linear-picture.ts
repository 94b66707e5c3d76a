/** A picture of linear light; interleaved RGB of 16 bits, row by row. */
export interface LinearPicture {
  data: Uint16Array;
  width: number;
  height: number;
}
