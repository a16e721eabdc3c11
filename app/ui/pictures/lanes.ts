/** A contender in a picture, in the plan's order. */
export interface Lane {
  id: string;
  name: string;
  index: number;
}
