/**
 * Hidden layers: nodes that KHR_node_visibility (Khronos, glTF 2.0) hides, with all below them. Their surfaces do not
 * come in; their lamps do, marked, because a lamp switched off in the drawing may be wanted in the picture.
 */
import type { Document, Node } from '@gltf-transform/core';

export interface NodesJson {
  nodes?: { extensions?: { KHR_node_visibility?: { visible?: unknown } } }[];
}

export const isHidden = (node: Node): boolean => node.getExtras().hidden === true;

/** `json`: of the file that the document was read from, whose nodes it has in the same order. */
export function hideNodes(document: Document, json: NodesJson, missing: string[]): void {
  const nodes = document.getRoot().listNodes();
  let surfaces = 0;
  const hide = (node: Node) => {
    if (isHidden(node)) return;
    node.setExtras({ ...node.getExtras(), hidden: true });
    if (node.getMesh()) surfaces++;
    node.setMesh(null);
    for (const child of node.listChildren()) hide(child);
  };
  for (const [i, node] of (json.nodes ?? []).entries())
    if (node.extensions?.KHR_node_visibility?.visible === false && nodes[i]) hide(nodes[i]);
  if (surfaces > 0)
    missing.push(
      `${surfaces} part${surfaces === 1 ? '' : 's'} on hidden layers; show ` +
        `${surfaces === 1 ? 'it' : 'them'} in the drawing and bring it in again if ` +
        `${surfaces === 1 ? 'it is' : 'they are'} wanted`
    );
}
