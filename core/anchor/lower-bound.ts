/** Index of the first of `values[from … to)`, ascending, that is not below `wanted`; `to` where there is none. O(log n). */
export function lowerBound(values: Int32Array, from: number, to: number, wanted: number): number {
  let low = from;
  let high = to;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (values[middle]! < wanted) low = middle + 1;
    else high = middle;
  }
  return low;
}
