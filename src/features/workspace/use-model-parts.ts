'use client';
/** The tree of a model, fetched when it is first wanted; a model never changes under its hash. */
import { useEffect, useState } from 'react';
import type { ModelPart } from '../../core/scene/model-part';
import type { WorkspaceDto } from '../../contracts/dto';
import { WHOLE } from '../../core/scene/part-paths';
import { send } from '../shared/send';
import { POSE_COPY } from './copy';
import { useWorkspaceStore } from './workspace-store';

const known = new Map<string, ModelPart[]>();

/** `'failed'` when it could not be fetched; null while it is on its way. */
export function useModelParts(model: string, wanted = true): ModelPart[] | 'failed' | null {
  const [parts, setParts] = useState<{ model: string; parts: ModelPart[] | 'failed' } | null>(null);
  useEffect(() => {
    if (!wanted || known.has(model)) return;
    let asked = true;
    void send<ModelPart[]>('GET', `/api/models/${model}/parts`).then((sent) => {
      if (sent.ok) known.set(model, sent.value);
      if (asked) setParts({ model, parts: sent.ok ? sent.value : 'failed' });
    });
    return () => {
      asked = false;
    };
  }, [model, wanted]);
  return known.get(model) ?? (parts?.model === model ? parts.parts : null);
}

/** The whole model as a part. */
export const wholeModel = ({ revision: { report } }: Pick<WorkspaceDto, 'revision'>): ModelPart => ({
  path: WHOLE,
  name: POSE_COPY.whole,
  depth: 0,
  triangles: report.triangles,
  objects: 1,
  materials: report.materials,
  min_m: report.min_m,
  max_m: report.max_m
});

/** The part whose pose is set; null when none is, or the panel for it is shut. */
export function usePartInHand(workspace: WorkspaceDto, open: boolean): ModelPart | null {
  const path = useWorkspaceStore((state) => state.partInHand);
  const parts = useModelParts(workspace.revision.glb_sha256, open);
  if (!open || path === null) return null;
  if (path === WHOLE) return wholeModel(workspace);
  return parts === null || parts === 'failed' ? null : (parts.find((part) => part.path === path) ?? null);
}
