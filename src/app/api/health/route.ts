import { storageState } from '../../../server/usecases/storage';

export const dynamic = 'force-dynamic';

/** `start`: which start of the application this server belongs to. `storage`: whether data can be written. */
export const GET = () => {
  const storage = storageState();
  return Response.json({ ok: storage === 'fine', storage, start: process.env.SPHAERA_START ?? null });
};
