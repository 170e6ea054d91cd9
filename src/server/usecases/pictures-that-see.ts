/** The pictures of a project whose view a newer revision changed: in whose frame something lies that is other. */
import { createCameraFrame } from '../../core/camera/lens';
import { type Box, seesBox } from '../../core/camera/sees-box';
import { aspectOf } from '../../core/output/fit-frame';
import { resolveViewpoint } from '../../core/recipe/viewpoint';
import type { Matched } from '../../core/scene/match-objects';
import type { ModelPart } from '../../core/scene/model-part';
import type { ImportReport } from '../../formats/model/import-report';
import { listPictures } from '../store/pictures';
import { briefOf } from './to-dto';

interface Model {
  cameras: ImportReport['cameras'];
  parts: readonly ModelPart[];
}

/** Ids. Where a picture looks is known of the model before alone, which still has its camera. */
export function picturesThatSee(
  projectId: string,
  { added, removed, changed, moved }: Pick<Matched, 'added' | 'removed' | 'changed' | 'moved'>,
  before: Model,
  after: Model
): string[] {
  const boxesOf = ({ parts }: Model, paths: readonly string[]): Box[] => {
    const wanted = new Set(paths);
    return parts.filter((part) => wanted.has(part.path));
  };
  const boxes = [
    ...boxesOf(before, [...removed, ...changed, ...moved]),
    ...boxesOf(after, [...added, ...changed, ...moved])
  ];
  return listPictures(projectId).flatMap((picture) => {
    const brief = briefOf(picture);
    const frame = createCameraFrame(resolveViewpoint(before, brief), aspectOf(brief.size));
    return frame && boxes.some((box) => seesBox(frame, box)) ? [picture.id] : [];
  });
}
