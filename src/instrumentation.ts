/** Next calls this once when a server begins. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { endWithStarter } = await import('./end-with-starter');
  endWithStarter();
}
