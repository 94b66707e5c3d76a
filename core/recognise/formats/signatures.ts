/** Files that are known by how they begin, and that nothing more is read of. */
import { recognised, type Format, type Kind } from '../recognised';

export const ZIP = /^PK\u0003\u0004/;

interface Signature {
  begins: RegExp;
  kind: Kind;
  format: string;
  note: string;
}

const program = (begins: RegExp, what: string): Signature => ({
  begins,
  kind: 'add-on',
  format: 'program',
  note: `${what}; kept whole, never run by Etagere`,
});

const list: readonly Signature[] = [
  program(/^\u007fELF/, 'an ELF program'),
  program(/^MZ/, 'a Windows program'),
  program(/^(\u00ca\u00fe\u00ba\u00be|\u00cf\u00fa\u00ed\u00fe|\u00fe\u00ed\u00fa[\u00ce\u00cf])/, 'a Mach-O program'),
  program(/^#!\s*\/\S+/, 'a script'),
  { begins: /^%PDF-/, kind: 'document', format: 'pdf', note: 'PDF document' },
  { begins: /^GIF8/, kind: 'document', format: 'gif', note: 'GIF picture' },
  { begins: /^\{\\rtf/, kind: 'document', format: 'rtf', note: 'RTF document' },
  { begins: ZIP, kind: 'unknown', format: 'zip', note: 'ZIP archive' },
];

export const signatures: Format = {
  id: 'signatures',
  find: (file) => {
    const found = list.find(({ begins }) => begins.test(file.start));
    return found ? recognised(file, found.kind, found.format, found.note) : null;
  },
};
