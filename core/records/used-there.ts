/** Whether what is for one camera belongs where certain cameras are used. */
import { bears, cameraForm, type Named } from './names';

export interface UsedCamera extends Named {
  /** what was done to the body, "infrared"; its files keep the plain body's name */ conversion: string;
}

/** A body under its own name: with what was done to it, which sets it apart from the plain one. */
export const bodyNames = (camera: UsedCamera): Named =>
  camera.conversion
    ? {
        maker: camera.maker,
        model: `${camera.model} ${camera.conversion}`,
        names: camera.names.map((name) => `${name} ${camera.conversion}`),
      }
    : camera;

/** Whether a body, as items and frames name it ("Alder, infrared"), is this camera. */
export const isBody = (camera: UsedCamera, body: string): boolean => bears(bodyNames(camera), cameraForm, body);

/** Those of the cameras that an item is for; an item that names no body is for all. */
export const usersOf = <C extends UsedCamera>(cameras: readonly C[], bodies: readonly string[]): C[] =>
  cameras.filter((camera) => !bodies.length || bodies.some((body) => isBody(camera, body)));
