import { isIcc } from '../../icc/header';
import { checkedIcc } from '../../icc/soundness';
import { identityIn } from '../../item/identity';
import { recognised, type Format, type Kind } from '../recognised';

/** What a profile of a class is here; of the others, an ICC profile. */
const kinds: Record<string, Kind> = { input: 'camera-profile', abstract: 'look', link: 'look' };

export const icc: Format = {
  id: 'icc',
  find: (file) => {
    if (!isIcc(file.bytes)) return null;
    const { header, caution } = checkedIcc(file.bytes);
    const note = `ICC ${header.version} ${header.class} profile, ${header.space} to ${header.pcs}`;
    return recognised(file, kinds[header.class] ?? 'icc-profile', 'icc', note, {
      ...(header.description ? { title: header.description } : {}),
      evidence: [`signature acsp, class ${header.class}`, `${header.tags.length} tags`],
      facts: {
        ...header,
        identity: identityIn({ rights: header.copyright }),
        kind: 'icc',
        fileTitle: header.description,
        ...(caution ? { caution } : {}),
      },
    });
  },
};
