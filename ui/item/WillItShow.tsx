'use client';
/** Whether the item will show for a photo, like one of the frames or one at hand: in each editor, at each station, and why not. */
import { useState } from 'react';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import type { PhotoAsked } from '@/core/api/items';
import { call, problemOf } from '../kit/call';
import { FileButton } from '../kit/FileButton';
import { useLive } from '../kit/live';
import { Notice } from '../kit/Notice';
import type { MayCure } from './CureButton';
import { photoAskedOf, photoWords } from './photo-asked';
import { ShowTable } from './ShowTable';

interface FrameAsked {
  id: string;
  name: string;
  file_kind: string;
  camera: string;
}
interface Props {
  itemId: string;
  frames: FrameAsked[];
  frame: string;
  may: MayCure;
}

const TOLD_OF = ['item', 'shelf', 'rollout', 'station', 'editor', 'camera'];
/** Of the choice: the photo at hand. */
const AT_HAND = 'at hand';

export function WillItShow({ itemId, frames, frame: first, may }: Props) {
  const [chosen, setChosen] = useState(first);
  const [photo, setPhoto] = useState<PhotoAsked | null>(null);
  const [unread, setUnread] = useState('');
  const queries = useQueryClient();
  const isAtHand = chosen === AT_HAND && photo !== null;
  const {
    data: found,
    error,
    isPlaceholderData: late,
  } = useQuery({
    queryKey: ['foretold', itemId, isAtHand ? photo : chosen],
    queryFn: ({ signal }) =>
      isAtHand
        ? call('POST /api/items/:id/foretell', { id: itemId, body: { photo }, signal })
        : call('GET /api/items/:id/foretell', { id: itemId, query: { frame: chosen }, signal }),
    enabled: chosen !== '' && (chosen !== AT_HAND || photo !== null),
    placeholderData: keepPreviousData,
  });
  const askAgain = () => void queries.invalidateQueries({ queryKey: ['foretold', itemId] });
  useLive((message) => message.type === 'event' && TOLD_OF.includes(message.event.subject), askAgain);
  const take = async (file: File) => {
    const asked = await photoAskedOf(file);
    setUnread(asked ? '' : `${file.name} is no photo that is read here.`);
    if (!asked) return;
    setPhoto(asked);
    setChosen(AT_HAND);
  };
  return (
    <div>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        {(frames.length > 0 || photo) && (
          <label className="flex items-center gap-2">
            For a photo like <PhotoChoice frames={frames} photo={photo} chosen={chosen} onChoose={setChosen} />
          </label>
        )}
        <FileButton
          words="Choose a photo"
          label="The photo to ask about"
          className="button"
          onFile={(file) => void take(file)}
        />
        {isAtHand && <span className="text-soft">{photoWords(photo)}; it was read here, and not sent.</span>}
        {unread && <span role="status">{unread}</span>}
      </div>
      {!frames.length && !photo && (
        <p className="border-t border-line py-2 text-soft">There is no frame yet to ask for.</p>
      )}
      <Notice problem={error && problemOf(error)} className="mb-2" />
      {found && <ShowTable itemId={itemId} found={found} late={late} may={may} onDone={askAgain} />}
    </div>
  );
}

interface ChoiceProps {
  frames: readonly FrameAsked[];
  photo: PhotoAsked | null;
  chosen: string;
  onChoose: (frame: string) => void;
}

function PhotoChoice({ frames, photo, chosen, onChoose }: ChoiceProps) {
  const kinds = [...new Set(frames.map((frame) => frame.file_kind))];
  return (
    <select className="field max-w-[340px]" value={chosen} onChange={(event) => onChoose(event.target.value)}>
      {photo && <option value={AT_HAND}>{photo.name}</option>}
      {kinds.map((kind) => (
        <optgroup key={kind} label={kind}>
          {frames
            .filter((frame) => frame.file_kind === kind)
            .map((frame) => (
              <option key={frame.id} value={frame.id}>
                {frame.name}
                {frame.camera && !frame.name.includes(frame.camera) ? `, ${frame.camera}` : ''}
              </option>
            ))}
        </optgroup>
      ))}
    </select>
  );
}
