/** What a person does with a chart, in plain steps: nothing here knows the editor, which is the point of it. */
import { chartKinds } from './layout';

/** What can be made: a chart of a kind, or a plain Hald image, for a program that takes nothing else. */
export const sheetKinds = [...chartKinds, 'plain'] as const;
export type SheetKind = (typeof sheetKinds)[number];

/** Points an axis that are offered by kind; a Hald image of level n has n² of them. */
export const sizesOf = (kind: SheetKind): readonly number[] => (kind === 'plain' ? [25, 36, 64] : [17, 25, 33, 48]);

export const chartFiles = ['png', 'tiff', 'dng'] as const;
export type ChartFile = (typeof chartFiles)[number];

export interface ChartMade {
  fileName: string;
  kind: SheetKind;
  width: number;
  height: number;
  /** with its version */ editor: string;
  /** what is switched on */ what: string;
  /** of camera data: the profile that it is made for */ profile: string | null;
}

export interface Step {
  title: string;
  text: string;
}

const sizeWords = ({ width, height }: ChartMade): string =>
  `${width.toLocaleString('en')} × ${height.toLocaleString('en')} pixels`;

function opened({ kind, fileName, profile, editor }: ChartMade): Step {
  const title = `Open it in ${editor}`;
  if (kind === 'camera data')
    return {
      title,
      text: `${fileName} is camera data, like a photo from that camera. Choose the camera profile ${profile ?? ''} and leave white balance as shot; nothing automatic on import.`,
    };
  const depth = kind === 'plain' ? '16 bits' : kind;
  return {
    title,
    text: `${fileName} is a rendered picture in sRGB of ${depth}. Take it in as it is: not scaled, not converted, nothing automatic on import.`,
  };
}

const FOUND = 'What stays on of these is found when the chart comes back, and it is refused.';
const NOT_FOUND = 'A plain Hald image cannot tell what stayed on: look twice.';

/** In the order in which they are done. */
export const stepsOf = (chart: ChartMade): Step[] => [
  {
    title: 'Download the chart',
    text: `${chart.fileName}, ${sizeWords(chart)}.${chart.kind === 'plain' ? '' : ' It carries its own number.'}`,
  },
  opened(chart),
  {
    title: 'Switch off what looks at neighbours or at the place',
    text: `Sharpening, noise reduction, local contrast and clarity, haze, grain, vignette, lens corrections, masks, crop and straightening. ${chart.kind === 'plain' ? NOT_FOUND : FOUND}`,
  },
  { title: `Put on ${chart.what}`, text: 'That alone, at the strength that is meant.' },
  {
    title: 'Export at full size',
    text: `TIFF or PNG of 16 bits where the editor has them, JPEG of the best quality else; sRGB; ${sizeWords(chart)}; no sharpening for output, no watermark, no border.`,
  },
  {
    title: 'Give it back',
    text: chart.kind === 'plain' ? 'Here.' : 'Here, or with a delivery at Intake, which knows the chart by its number.',
  },
];

const EXTENSIONS: Record<ChartFile, string> = { png: 'png', tiff: 'tif', dng: 'dng' };

/** What the file is called: by what is switched on, where, and its number, so that several are told apart on a desk. */
export function fileOf({
  what,
  editor,
  number,
  file,
}: {
  what: string;
  editor: string;
  number: number;
  file: ChartFile;
}): string {
  const words = `${what} ${editor} ${number}`.replace(/[^\p{L}\p{N} ()-]+/gu, '-').slice(0, 120);
  return `${words}.${EXTENSIONS[file]}`;
}
