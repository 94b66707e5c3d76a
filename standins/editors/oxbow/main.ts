/** Oxbow 2: a visible folder at any depth, read at launch and again whenever something in it changes. Headings are folders. */
import { SaxesParser } from 'saxes';
import { photos } from '../photos';
import { files, live, options, read, take, type Listed } from '../program';

const configs: Record<string, string> = {
  linux: '.config/oxbow',
  macos: 'Library/Application Support/Oxbow',
  windows: 'AppData/Roaming/Oxbow',
};
const config = configs[options.system] ?? configs.windows;
const named = (path: string, under: string): { title: string; headings: string[] } => {
  const parts = path.slice(under.length + 1).split('/');
  return { title: parts.pop()!.replace(/\.[^.]+$/, ''), headings: parts };
};

function look(path: string): Omit<Listed, 'path'> {
  if (!/\.cube$/i.test(path)) throw new Error('no table that Oxbow reads');
  let size = 0;
  let dimensions = 3;
  let rows = 0;
  read(path)
    .toString('utf8')
    .split('\n')
    .forEach((raw, i) => {
      const line = raw.trim();
      if (!line || line.startsWith('#')) return;
      const match = /^LUT_([13])D_SIZE\s+(\d+)$/.exec(line);
      if (match) {
        dimensions = Number(match[1]);
        size = Number(match[2]);
        return;
      }
      if (/^[A-Z]/.test(line)) return;
      const numbers = line.split(/\s+/).map(Number);
      if (numbers.length !== 3 || numbers.some((v) => !Number.isFinite(v)))
        throw new Error(`row ${i + 1} is not three numbers`);
      rows++;
    });
  if (!size) throw new Error('the size of the table is missing');
  if (rows !== (dimensions === 3 ? size ** 3 : size))
    throw new Error(`${rows} rows where the size ${size} needs ${dimensions === 3 ? size ** 3 : size}`);
  return { ...named(path, 'Oxbow/Looks'), kind: 'look' };
}

function preset(path: string): Omit<Listed, 'path'> {
  if (!/\.xmp$/i.test(path)) throw new Error('no preset that Oxbow reads');
  const parser = new SaxesParser({ xmlns: true });
  let steps = 0;
  let own = false;
  parser.on('error', (error) => {
    throw new Error(`the packet is broken: ${error.message.slice(0, 80)}`);
  });
  parser.on('opentag', (saxesTagNS) => {
    if (saxesTagNS.uri === 'https://oxbow.example/ns/run/2/') own = true;
    for (const saxesAttributeNS of Object.values(saxesTagNS.attributes))
      if (saxesAttributeNS.uri === 'https://oxbow.example/ns/run/2/') {
        own = true;
        if (saxesAttributeNS.local === 'step') steps++;
      }
  });
  parser.write(read(path).toString('utf8')).close();
  if (!own) throw new Error('no steps of Oxbow 2 in this packet');
  if (!steps) throw new Error('the packet holds no steps');
  return { ...named(path, 'Oxbow/Presets'), kind: 'preset' };
}

live(
  `${config}/contents.json`,
  `${config}/refused.log`,
  () => {
    const contents = take(files('Oxbow/Looks'), look);
    const presets = take(files('Oxbow/Presets'), preset);
    const listed = [...contents.listed, ...presets.listed];
    const offers = listed.map((l) => l.path);
    // it opens whatever comes, and offers all of its shelves
    return {
      listed,
      refused: [...contents.refused, ...presets.refused],
      cards: photos('Pictures').map(({ path }) => ({ path, card: 'shown', reason: '', offers })),
    };
  },
  700,
);
