/** Develops some rows of a stage film each time that its finish changes. */
import { type StageFilm, openStageFilm, stageLight } from '../../../core/film/stage-film';
import type { MaskOf } from '../../../core/film/masks';
import { proposeFinish } from '../../../core/finishing/propose';
import { StageDeveloper } from '../../../core/finishing/stage-developer';
import { seenBackdrop } from '../preview/seen-backdrop';
import { seenTable } from '../preview/seen-table';
import type { FinishOrder, FinishReport } from './messages';
import { pressSeen } from './press-seen';

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<FinishOrder>) => void) | null;
  postMessage(message: FinishReport, transfer?: Transferable[]): void;
};
let film: StageFilm | null = null;
let developer: StageDeveloper | null = null;

scope.onmessage = ({ data }) => {
  answer(data).catch((error: unknown) =>
    scope.postMessage({
      kind: 'fault',
      id: data.id,
      message: error instanceof Error ? error.message : String(error)
    })
  );
};

async function answer(order: FinishOrder): Promise<void> {
  if (order.kind === 'open') {
    const response = await fetch(order.url);
    if (!response.ok) throw new Error(((await response.json()) as { message?: string }).message ?? 'it cannot be read');
    film = openStageFilm(await response.arrayBuffer());
    developer = new StageDeveloper(film, order);
    const { groups, luminanceRatio, stage, names } = film;
    const facts = { groups, luminanceRatio, denoised: stage.clean !== null, hasMasks: names.part.length > 0 };
    scope.postMessage({ kind: 'opened', id: order.id, ...facts });
    return;
  }
  if (!film || !developer) return;
  if (order.kind === 'pick') {
    const { stage, names } = film;
    const x = Math.min(stage.width - 1, Math.floor(order.u * stage.width));
    const y = Math.min(stage.height - 1, Math.floor(order.v * stage.height));
    const nameAt = (of: MaskOf) => names[of][stage.ids[of][y * stage.width + x]! - 1] ?? null;
    scope.postMessage({ kind: 'picked', id: order.id, part: nameAt('part'), material: nameAt('material') });
    return;
  }
  if (order.kind === 'propose') {
    const light = stageLight(film, film.small, order.finish, 0, film.small.height);
    scope.postMessage({ kind: 'proposal', id: order.id, proposal: proposeFinish(light, order.finish) });
    return;
  }
  const { finish, within, level, press, id } = order;
  const { width, height } = level === 'draft' ? film.small : film.stage;
  const backdrop = await seenBackdrop(finish.background, width / within.width, height / within.height);
  const extras = { within, backdrop, table: await seenTable(finish), press: await pressSeen(press) };
  const rows = developer.develop(finish, extras, level);
  scope.postMessage({ kind: 'rows', id, rows }, [rows.pixels.buffer]);
}
