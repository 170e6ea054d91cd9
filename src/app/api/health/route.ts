export const dynamic = 'force-dynamic';

/** `start`: which start of the application this server belongs to. */
export const GET = () => Response.json({ ok: true, start: process.env.SPHAERA_START ?? null });
