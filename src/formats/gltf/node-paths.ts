/** The paths of a document's nodes, by which a brief names parts. */
import type { Document, Node } from '@gltf-transform/core';
import { partPaths } from '../../core/scene/part-paths';

export function pathsOf(document: Document): Map<Node, string> {
  const nodes = document.getRoot().listNodes();
  const index = new Map(nodes.map((node, i) => [node, i]));
  const outlines = nodes.map((node) => ({
    name: node.getName() || (node.getMesh()?.getName() ?? ''),
    children: node.listChildren().map((child) => index.get(child)!)
  }));
  const scene = document.getRoot().getDefaultScene() ?? document.getRoot().listScenes()[0];
  const paths = partPaths(outlines, scene?.listChildren().map((node) => index.get(node)!) ?? []);
  return new Map([...paths].map(([i, path]) => [nodes[i]!, path]));
}
