/** Pictures: camera files, Hald images, and frames of every other kind. */
import { chartInFile, chartOfSize } from '../../editor-chart/in-file';
import { frameFacts } from '../../frame/metadata';
import { checkWhole } from '../../frame/whole';
import { haldLevel, haldLikeness } from '../../look/hald';
import { readLook } from '../../look/read';
import { EDITOR_CHART, lookFacts, recognised, type Format, type Recognised, type SeenFile } from '../recognised';

type Facts = NonNullable<ReturnType<typeof frameFacts>>;

/** Maker and camera, the maker once. */
const cameraOf = ({ maker, camera }: Facts): string =>
  [maker && !camera.startsWith(maker) ? maker : '', camera].filter(Boolean).join(' ');

function cameraFile(file: SeenFile, facts: Facts): Recognised {
  const camera = cameraOf(facts);
  const note = `camera file${camera ? ` of the ${camera}` : ''}, brought to DNG when it is taken in`;
  return recognised(file, 'frame', 'raw', note, {
    facts: { ...facts },
    confidence: 0.9,
    evidence: ['a mosaic of a color filter array, or a camera’s own kind of TIFF', 'no DNG version'],
  });
}

/** The level of a Hald image of this size, where a picture of the format can be one. */
function possibleHald({ format, width, height }: Facts): number | null {
  const level = haldLevel(width, height);
  return level && level >= 4 && (format === 'png' || format === 'tiff') ? level : null;
}

function hald(file: SeenFile, facts: Facts, level: number): Recognised {
  const look = readLook(file.bytes);
  const likeness = haldLikeness(look);
  const percent = Math.round(likeness * 100);
  if (likeness <= 0.5)
    return frame(file, facts, {
      confidence: 0.9,
      evidence: [
        `${facts.format.toUpperCase()} signature`,
        `of a Hald image’s size, but does not run like one (${percent} %)`,
      ],
    });
  return recognised(file, 'look', 'hald', `Hald image of level ${level}, ${level * level} points`, {
    confidence: Math.min(1, 0.5 + likeness / 2),
    evidence: [`a square of ${facts.width} = ${level}³ pixels`, `it runs as an identity does (${percent} %)`],
    facts: { ...lookFacts(look), level },
    look,
  });
}

/** A chart that went through an editor, by its number; or a picture of the size of one, which is known when it is read. */
function chart(file: SeenFile, { format, width, height }: Facts, size: number): Recognised | null {
  const name = format === 'png' || format === 'tiff' ? chartInFile(file.bytes, format) : null;
  const bySize = `${width} × ${height} pixels, as a chart of ${size} points has`;
  if (name)
    return recognised(
      file,
      'chart',
      EDITOR_CHART,
      `chart ${name.id} of ${name.size} points, as an editor exported it`,
      {
        facts: { ...name },
        evidence: [bySize, 'its code, twice, with a check sum'],
      },
    );
  // what was compressed with loss is unpacked only when it is read
  if (format !== 'jpeg' && format !== 'tiff') return null;
  return recognised(file, 'chart', EDITOR_CHART, `of the size of a chart of ${size} points`, {
    confidence: 0.8,
    evidence: [bySize],
  });
}

function frame(file: SeenFile, facts: Facts, more: Partial<Recognised> = {}): Recognised {
  const camera = more.evidence ? '' : cameraOf(facts);
  const note = `${facts.width} × ${facts.height} pixels${camera ? `, ${camera}` : ''}`;
  return recognised(file, 'frame', facts.format, note, {
    facts: { ...facts },
    evidence: [`${facts.format.toUpperCase()} signature`, ...(camera ? [`taken with the ${camera}`] : [])],
    ...more,
  });
}

export const picture: Format = {
  id: 'picture',
  find: (file) => {
    const facts = frameFacts(file.bytes);
    if (!facts) return null;
    if (facts.format === 'raw') return cameraFile(file, facts);
    checkWhole(file.bytes);
    const level = possibleHald(facts);
    if (level) return hald(file, facts, level);
    const size = chartOfSize(facts.width, facts.height);
    return (size && chart(file, facts, size)) || frame(file, facts);
  },
};
