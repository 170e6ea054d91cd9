/** Files of the disk as a ZIP that is streamed, over fflate. Pictures are packed already: they are stored as they are. */
import { createReadStream } from 'node:fs';
import { Zip, ZipPassThrough } from 'fflate';

/** Names must differ. An error of the disk ends the stream with it. */
export function zipOf(files: readonly { path: string; name: string }[]): ReadableStream<Uint8Array> {
  let stopped = false;
  return new ReadableStream<Uint8Array>({
    async start(controller) {
      const zip = new Zip((error, chunk, last) => {
        if (stopped) return;
        if (error) return controller.error(error);
        if (chunk.length > 0) controller.enqueue(chunk);
        if (last) controller.close();
      });
      try {
        for (const { path, name } of files) {
          const entry = new ZipPassThrough(name);
          zip.add(entry);
          for await (const chunk of createReadStream(path)) {
            if (stopped) return;
            entry.push(chunk as Uint8Array);
            // what is not fetched yet waits here, not in memory
            while (!stopped && (controller.desiredSize ?? 0) < -MOST_WAITING)
              await new Promise((go) => setTimeout(go, 20));
          }
          entry.push(new Uint8Array(0), true);
        }
        zip.end();
      } catch (error) {
        if (!stopped) controller.error(error);
      }
    },
    cancel() {
      stopped = true;
    }
  });
}

/** Chunks that wait to be fetched. */
const MOST_WAITING = 64;
