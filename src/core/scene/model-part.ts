/** A part of a model as lists show it: a node with all that lies within it. */
export interface ModelPart {
  /** As partPaths makes it. */
  path: string;
  name: string;
  /** How many parts it lies within. */
  depth: number;
  /** As drawn, of all within it. */
  triangles: number;
  objects: number;
  /** Names. */
  materials: string[];
  /** Where it came in. */
  min_m: [number, number, number];
  max_m: [number, number, number];
}
