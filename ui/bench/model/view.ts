/** How a large cell is looked at: as a whole, or some of it at 1:1 and more. */
export interface View {
  /** 0: the whole, else pixels of the screen a pixel of the picture */ zoom: number;
  /** what is in the middle, 0…1 */ x: number;
  y: number;
}

export const wholeView: View = { zoom: 0, x: 0.5, y: 0.5 };

/** How far an arrow moves, as a share of the picture. */
const STEP = 0.05;

export const zoomed = (view: View, zoom: number): View => (zoom ? { ...view, zoom } : wholeView);

export const panned = (view: View, right: number, down: number): View => ({
  ...view,
  x: view.x + right * STEP,
  y: view.y + down * STEP,
});

export interface Size {
  width: number;
  height: number;
}

/** Where a picture lies in a room: its corner, its size on the screen, and pixels of the screen a pixel of the picture. */
export interface Placed {
  x: number;
  y: number;
  width: number;
  height: number;
  scale: number;
}

/** Along one direction: in the middle where it fits, else so that `middle` of it is there, without a gap at either end. */
function placedAlong(room: number, length: number, middle: number): number {
  if (length <= room) return (room - length) / 2;
  return Math.min(0, Math.max(room - length, room / 2 - middle * length));
}

/** @param ratio pixels of the screen a pixel of the page: 1:1 is a pixel of the picture on a pixel of the screen */
export function placeIn(room: Size, picture: Size, view: View, ratio: number): Placed {
  const fit = Math.min(room.width / picture.width, room.height / picture.height);
  const scale = view.zoom ? view.zoom / ratio : fit;
  const width = picture.width * scale;
  const height = picture.height * scale;
  return {
    x: placedAlong(room.width, width, view.x),
    y: placedAlong(room.height, height, view.y),
    width,
    height,
    scale,
  };
}
