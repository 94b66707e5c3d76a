import { expect, test } from 'vitest';
import { explainPhotos, type EditorHere, type PhotoSeen } from './photos';

const editor = (key: string, cameras: EditorHere['cameras'], stations = 1): EditorHere => ({
  key,
  editor: key.split('@')[0]!,
  title: key.replace('@', ' '),
  cameras,
  stations,
});
const photo = (camera: string, kind: PhotoSeen['kind'] = 'camera data', unique = ''): PhotoSeen => ({
  maker: 'Corvane',
  camera,
  unique,
  kind,
  n: 1,
});
const of = (photos: PhotoSeen[], editors: EditorHere[]) => explainPhotos(photos, editors)[0]!.answers[0]!;

test('photos are counted by camera and kind, the most first, however the files write the name', () => {
  const photoGroups = explainPhotos(
    [photo('Corvane Ley'), photo('CORVANE LEY'), photo('Ley', 'rendered'), photo('Corvane Ley II')],
    [editor('m@4', 'all')],
  );
  expect(photoGroups.map((x) => [x.camera, x.kind, x.n])).toEqual([
    ['Corvane Ley', 'camera data', 2],
    ['Ley', 'rendered', 1],
    ['Corvane Ley II', 'camera data', 1],
  ]);
});
test('what an editor does not read is told in numbers; a newer version of it is the first cure, another editor the second', () => {
  const groups = of(
    [photo('Corvane Ley'), photo('Corvane Ley')],
    [editor('m@3', ['Perrin Alder']), editor('o@2', 'all', 0), editor('m@4', ['Corvane Ley'], 2)],
  );
  expect(groups).toMatchObject({
    answer: 'no',
    reason: '2 photos of the Corvane Ley are not supported here: m 3 has no such camera in its list',
  });
  expect(groups.cures).toEqual([
    'Use m 4, which 2 stations have: it reads them.',
    'Open them in o 2, which no station has yet.',
    'Hand over rendered files (TIFF, JPEG) of them; those show.',
  ]);
});
test('where nobody reads it, asking is the cure', () => {
  expect(of([photo('Corvane Ley II')], [editor('m@4', ['Corvane Ley'])]).cures[0]).toBe(
    'No editor here reads the Corvane Ley II: ask for it.',
  );
});
test('rendered files show everywhere; a list that nobody wrote is not known; without a name only “all” helps', () => {
  expect(of([photo('Corvane Ley', 'rendered')], [editor('m@3', [])]).answer).toBe('yes');
  expect(of([photo('Corvane Ley')], [editor('m@3', null)]).answer).toBe('unknown');
  expect([
    of([photo('')], [editor('m@3', ['Corvane Ley'])]).answer,
    of([photo('')], [editor('m@3', 'all')]).answer,
  ]).toEqual(['unknown', 'yes']);
});
test('a name that only the studio knows is found through its list, and through the name in a DNG', () => {
  const own = [{ maker: 'Corvane', model: 'Ley', names: ['CL-200 Export'] }];
  const editorHeres = [editor('m@4', ['Corvane Ley'])];
  expect(explainPhotos([photo('CL-200 Export')], editorHeres)[0]!.answers[0]!.answer).toBe('no');
  expect(explainPhotos([photo('CL-200 Export')], editorHeres, own)[0]).toMatchObject({
    camera: 'Ley',
    answers: [{ answer: 'yes' }],
  });
  expect(explainPhotos([photo('', 'camera data', 'Corvane Ley')], editorHeres, own)[0]!.answers[0]!.answer).toBe('yes');
});
