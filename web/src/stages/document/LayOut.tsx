import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { arrayMove, SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { HolderOutlined } from '@ant-design/icons';
import { Checkbox, Radio, Select } from 'antd';
import { SECTION_IDS, type EntryBodies, type SectionId } from '@true-ledger/core/entries';
import { ALWAYS, HEADINGS, layoutOf, pictureNumbers, TEMPLATES } from '@true-ledger/core/report';
import { useState, type ReactNode } from 'react';
import { useCase, useNow, useRecord } from '../../app/caseContext.js';
import './document.css';

/** For whom the account is, which sections and pictures it has, in which order. */
export function LayOut(): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const record = useRecord();
  const now = useNow();
  const layout = layoutOf(view);
  const set = (change: Partial<EntryBodies['account-laid-out']>): void =>
    record({ kind: 'account-laid-out', station: null, body: { ...layoutOf(now()), ...change } });
  const template = TEMPLATES.find((t) => t.id === layout.template)!;
  const order = [...layout.order, ...SECTION_IDS.filter((s) => !layout.order.includes(s))];
  // Sections the template does not have are there to be taken in.
  const shown = (s: SectionId): boolean => ALWAYS.has(s) || (layout.order.includes(s) && !layout.left.includes(s));
  const toggle = (s: SectionId, on: boolean): void => {
    const at = layoutOf(now());
    set({
      order: on && !at.order.includes(s) ? [...at.order, s] : at.order,
      left: on ? at.left.filter((x) => x !== s) : [...at.left.filter((x) => x !== s), s],
    });
  };
  const numbers = pictureNumbers(view, layout);
  const names = new Map<string, string>();
  for (const s of view.stations) for (const p of s.photos) if (!names.has(p.value.sha256)) names.set(p.value.sha256, s.station.name);
  const pictures = [...numbers.keys(), ...[...names.keys()].filter((sha) => !numbers.has(sha))];
  return (
    <div className="layout-pane">
      <label>
        <span>For</span>
        <Select
          aria-label="Template"
          value={layout.template}
          disabled={readOnly}
          onChange={(id) => {
            const t = TEMPLATES.find((x) => x.id === id)!;
            set({ template: t.id, order: t.order, left: [], detail: t.detail });
          }}
          options={TEMPLATES.map((t) => ({ value: t.id, label: t.name }))}
        />
      </label>
      <p className="quiet">{template.says}</p>
      <Radio.Group
        aria-label="Detail"
        value={layout.detail}
        disabled={readOnly}
        onChange={(e) => set({ detail: e.target.value as 'full' | 'short' })}
        options={[
          { value: 'full', label: 'In full' },
          { value: 'short', label: 'In short' },
        ]}
      />
      <h3>Sections</h3>
      <Sortable
        ids={order}
        disabled={readOnly}
        onMove={(next) => set({ order: (next as SectionId[]).filter((s) => layout.order.includes(s)) })}
        row={(id) => (
          <Checkbox
            checked={shown(id as SectionId)}
            disabled={readOnly || ALWAYS.has(id as SectionId)}
            onChange={(e) => toggle(id as SectionId, e.target.checked)}
          >
            {HEADINGS[id as SectionId]}
          </Checkbox>
        )}
        nameOf={(id) => HEADINGS[id as SectionId]}
      />
      <h3>Pictures</h3>
      <div className="row">
        <Checkbox checked={layout.marks} disabled={readOnly} onChange={(e) => set({ marks: e.target.checked })}>
          with marks
        </Checkbox>
        <Checkbox checked={layout.insets} disabled={readOnly} onChange={(e) => set({ insets: e.target.checked })}>
          with surface
        </Checkbox>
      </div>
      {pictures.length === 0 ? (
        <p className="quiet">No pictures of places yet.</p>
      ) : (
        <Sortable
          ids={pictures}
          disabled={readOnly}
          onMove={(next) => set({ pictureOrder: next })}
          nameOf={(id) => `Picture of ${names.get(id) ?? ''}`}
          row={(id) => (
            <Checkbox
              checked={numbers.has(id)}
              disabled={readOnly}
              onChange={(e) =>
                set({ picturesLeft: e.target.checked ? layout.picturesLeft.filter((x) => x !== id) : [...layout.picturesLeft, id] })
              }
            >
              <img src={`/api/cases/${caseId}/photos/${id}/thumb`} alt="" loading="lazy" />
              <span>
                {numbers.has(id) ? `${numbers.get(id)}: ` : ''}
                {names.get(id)}
              </span>
            </Checkbox>
          )}
        />
      )}
    </div>
  );
}

/** A list whose rows are dragged, or moved with the keyboard, into another order. */
function Sortable({
  ids,
  row,
  nameOf,
  disabled,
  onMove,
}: {
  ids: readonly string[];
  row: (id: string) => ReactNode;
  nameOf: (id: string) => string;
  disabled: boolean;
  onMove: (ids: string[]) => void;
}): ReactNode {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  // The list follows the hand; the ledger is written once, when it is let go.
  const [held, setHeld] = useState<readonly string[] | null>(null);
  const shown = held && held.length === ids.length ? held : ids;
  const drop = ({ active, over }: DragEndEvent): void => {
    if (!over || active.id === over.id) return;
    const next = arrayMove([...shown], shown.indexOf(String(active.id)), shown.indexOf(String(over.id)));
    setHeld(next);
    onMove(next);
    setTimeout(() => setHeld(null), 600);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={[...shown]} strategy={verticalListSortingStrategy} disabled={disabled}>
        <ul className="sortable">
          {shown.map((id) => (
            <SortableRow key={id} id={id} name={nameOf(id)} disabled={disabled}>
              {row(id)}
            </SortableRow>
          ))}
        </ul>
      </SortableContext>
    </DndContext>
  );
}

function SortableRow({ id, name, disabled, children }: { id: string; name: string; disabled: boolean; children: ReactNode }): ReactNode {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({ id, disabled });
  return (
    <li ref={setNodeRef} style={{ transform: CSS.Translate.toString(transform), transition }}>
      {!disabled && (
        <button type="button" className="grip" ref={setActivatorNodeRef} {...attributes} {...listeners} aria-label={`Move ${name}`}>
          <HolderOutlined />
        </button>
      )}
      {children}
    </li>
  );
}
