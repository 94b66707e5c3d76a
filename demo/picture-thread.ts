/** Makes the demo's pictures in a thread of its own, one after the other. */
import { parentPort } from 'node:worker_threads';
import { must } from '@/core/must';
import { cameraFrame, cameraFrames } from './cameras/frames';
import { frame, frames, hdrFrame } from './frames';
import type { PictureAnswer, PictureName } from './pictures';

/** Reference frames are PNG, what cameras took is DNG, the HDR picture is TIFF. */
async function bytesOf({ of, at }: PictureName): Promise<Uint8Array> {
  switch (of) {
    case 'reference':
      return new Uint8Array((await frame(must(frames[at]).composition)).png);
    case 'camera':
      return (await cameraFrame(must(cameraFrames[at]))).dng;
    case 'hdr':
      return hdrFrame.file();
  }
}

const answerOf = (name: PictureName): Promise<PictureAnswer> =>
  bytesOf(name).then(
    (bytes) => ({ bytes }),
    (error: unknown) => ({ fault: (error as Error).stack ?? String(error) }),
  );

parentPort?.on('message', (name: PictureName) => {
  void answerOf(name).then((answer) => parentPort?.postMessage(answer));
});
