'use client';
/** What a station is called, whose it is and which editors it has; and its end, which can be taken back. */
import { useState } from 'react';
import { stationEndpoints } from '@/core/api/stations';
import { groupsIn } from '@/core/records/groups';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { counted } from '../kit/words';
import { EditorsThere, type EditorChoice } from './EditorsThere';
import { changeOf, Ticks, type Choice } from './Ticks';

interface Station {
  id: string;
  name: string;
  person: string;
  retired: boolean;
  /** "editor@version" */ editors: string[];
  /** ids of those that are used there */ cameras: string[];
  groups: string[];
}
type Fields = Omit<Station, 'id' | 'editors' | 'cameras' | 'groups'>;
interface Props {
  station: Station;
  /** those that there are for such a station */ choices: readonly EditorChoice[];
  /** the studio's cameras; none for a card */ cameras: readonly Choice[];
  /** how many files of ours lie there, by editor */ placed: Readonly<Record<string, number>>;
}

export function ChangeStation(props: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button className="button" onClick={() => setOpen(true)}>
        Change
      </button>
      {open && <Form {...props} onClose={() => setOpen(false)} />}
    </>
  );
}

/** What becomes of our files where an editor goes. */
function Leaving({ gone, placed }: { gone: readonly EditorChoice[]; placed: Props['placed'] }) {
  const words = gone.flatMap(({ id, title }) => (placed[id] ? [`${counted(placed[id], 'file')} for ${title}`] : []));
  if (!words.length) return null;
  return (
    <p role="status" className="border-l-[3px] border-ochre pl-3">
      Etagere has put {words.join(' and ')} there. They stay where they are, and are no longer looked after.
    </p>
  );
}

function Form({
  station: { id, editors, cameras: used, groups, ...said },
  choices,
  cameras,
  placed,
  onClose,
}: Props & { onClose: () => void }) {
  const { busy, problem, runAndRefresh } = useAction();
  const tell = useToast();
  const form = useSchemaForm<Fields>(stationEndpoints['PATCH /api/stations/:id'].body, said);
  const [ticked, setTicked] = useState(editors);
  const [inUse, setInUse] = useState(used);
  const [grouped, setGrouped] = useState(groups.join(', '));
  const { came, went } = changeOf(editors, ticked);
  const send = (body: Fields) => call('PATCH /api/stations/:id', { id, body });
  const save = async (body: Fields) => {
    const shown = changeOf(used, inUse);
    const saved = await runAndRefresh(async () => {
      await call('PATCH /api/stations/:id', { id, body: { ...body, groups: groupsIn(grouped), came, went } });
      if (shown.came.length || shown.went.length) await call('PATCH /api/stations/:id/cameras', { id, body: shown });
    });
    if (saved) onClose();
  };
  const retire = async () => {
    const retired = !said.retired;
    if (!(await runAndRefresh(() => send({ ...said, retired })))) return;
    tell({
      words: retired ? `${said.name} is retired. Its agent is not let in any more.` : `${said.name} is in use again.`,
      undo: () => send(said),
    });
    onClose();
  };
  return (
    <Modal title={`Change ${said.name}`} onClose={onClose}>
      <form noValidate className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(save)(event)}>
        <Field label="Name" problem={problemWith(form, 'name')}>
          {(attributes) => <input autoFocus {...attributes} {...form.register('name')} />}
        </Field>
        <Field label="Person" problem={problemWith(form, 'person')}>
          {(attributes) => <input {...attributes} {...form.register('person')} />}
        </Field>
        <Field label="Groups, with commas between them" problem="">
          {(attributes) => (
            <input
              {...attributes}
              placeholder="Kiln, upper floor"
              value={grouped}
              onChange={(event) => setGrouped(event.target.value)}
            />
          )}
        </Field>
        <EditorsThere choices={choices} ticked={ticked} onTick={setTicked} />
        <Leaving gone={choices.filter((choice) => went.includes(choice.id))} placed={placed} />
        {cameras.length > 0 && (
          <div>
            <Ticks legend="Cameras used there" choices={cameras} ticked={inUse} onTick={setInUse} />
            <p className="mt-1 text-[12px] text-soft">
              {inUse.length
                ? 'Profiles of other cameras are left out of what is rolled out there.'
                : 'While none is named, profiles of all cameras can go there.'}
            </p>
          </div>
        )}
        {!said.retired && (
          <p className="text-soft">
            A retired station gets nothing any more, and its agent is not let in; what lies there stays, and so does its
            history. When it is brought back, its agent is enrolled anew.
          </p>
        )}
        <Notice problem={problem} />
        <ModalFoot
          apart={
            <button type="button" className="button danger" disabled={busy} onClick={() => void retire()}>
              {said.retired ? 'Bring it back' : 'Retire it'}
            </button>
          }
        >
          <button className="button main" disabled={busy}>
            Save
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
