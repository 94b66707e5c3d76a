'use client';
/** The cells that cameras and lenses have alike. */
import type { ReactNode } from 'react';
import { State } from '../kit/State';
import type { Gear } from './GearForm';
import { nameOf, type GearRequest } from './model';

export function GearHead({ title, add, onAdd }: { title: string; add: string; onAdd: (() => void) | null }) {
  return (
    <div className="mb-2 mt-8 flex flex-wrap items-center gap-2 first:mt-0">
      <h2 className="mr-auto text-[17px]">{title}</h2>
      {onAdd && (
        <button className="button" onClick={onAdd}>
          {add}
        </button>
      )}
    </div>
  );
}

interface NameProps {
  gear: Gear;
  more: ReactNode;
  onEdit: (() => void) | null;
}

export function GearName({ gear, more, onEdit }: NameProps) {
  const className = 'text-left font-serif text-[15px] [overflow-wrap:anywhere]';
  return (
    <td>
      {onEdit ? (
        <button className={`${className} underline`} onClick={onEdit}>
          {nameOf(gear)}
        </button>
      ) : (
        <span className={className}>{nameOf(gear)}</span>
      )}
      <span className="block text-[12px] text-soft [overflow-wrap:anywhere]">{more}</span>
    </td>
  );
}

interface RequestsProps {
  gear: Gear;
  requests: GearRequest[];
  onAsk: (() => void) | null;
}

export function GearRequests({ gear, requests, onAsk }: RequestsProps) {
  return (
    <td>
      {requests.map((request, i) => (
        <span key={i} className="block text-[12px]">
          <State of={request.state} word={`${request.wanted} ${request.state}`} />
        </span>
      ))}
      {onAsk && (
        <button
          className="button quiet -ml-2 !h-[22px]"
          aria-label={`Ask for something for the ${nameOf(gear)}`}
          onClick={onAsk}
        >
          Ask
        </button>
      )}
    </td>
  );
}
