import { Button, Input, Select } from 'antd';
import type { Sourced } from '@true-ledger/core/ledger';
import type { EntryBodies } from '@true-ledger/core/entries';
import { clockDoubt } from '@true-ledger/core/photo';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useNetworkQuery } from '../../app/api.js';
import QRCode from 'qrcode';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { useAppDispatch } from '../../app/store.js';
import { Clips } from '../../capture/Clips.js';
import { addFiles } from '../../capture/queue.js';
import { ReadAll } from './ReadAll.js';
import { UploadList } from '../../capture/UploadList.js';
import { COLOUR } from '../../app/tokens.js';
import './pictures.css';

interface Shown {
  readonly photo: Sourced<EntryBodies['photo-added']>;
  readonly station: string;
  readonly name: string;
  readonly tagged: boolean;
  readonly blurred: boolean;
}

const CELL = 184;

/** All pictures of the case, newest first, and what waits or was set aside. Only the rows in sight are drawn. */
export function Pictures(): ReactNode {
  const { view, caseId, readOnly, me } = useCase();
  const dispatch = useAppDispatch();
  const [place, setPlace] = useState<string | null>(null);
  const all = useMemo<Shown[]>(() => {
    const own = view.photos.map((photo) => ({
      photo,
      station: '',
      name: 'The whole engine',
      tagged: false,
      blurred: view.blurs[photo.value.sha256] !== undefined,
    }));
    const placed = view.stations.flatMap((s) =>
      s.photos.map((photo) => ({
        photo,
        station: s.station.id,
        name: s.station.name,
        tagged: s.tags[photo.value.sha256] !== undefined,
        blurred: s.blurs[photo.value.sha256] !== undefined,
      })),
    );
    return [...own, ...placed].sort((a, b) => b.photo.version.seq - a.photo.version.seq);
  }, [view]);
  const shown = place === null ? all : all.filter((p) => p.station === place);
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(1000);
  useEffect(() => {
    const node = box.current;
    if (!node) return;
    const watch = new ResizeObserver(() => setWidth(node.clientWidth));
    watch.observe(node);
    return () => watch.disconnect();
  }, []);
  const columns = Math.max(1, Math.floor(width / CELL));
  const rows = useVirtualizer({
    count: Math.ceil(shown.length / columns),
    getScrollElement: () => box.current,
    estimateSize: () => 176,
    overscan: 3,
  });
  const places = [{ value: '', label: 'The whole engine' }, ...view.stations.map((s) => ({ value: s.station.id, label: s.station.name }))];
  return (
    <div className="page pictures">
      <div className="page-head">
        <h1>Pictures</h1>
        <span className="quiet figure">{all.length}</span>
        <Select
          allowClear
          showSearch={{ optionFilterProp: 'label' }}
          placeholder="All places"
          aria-label="Show one place"
          value={place}
          onChange={(v: string | undefined) => setPlace(v ?? null)}
          options={places}
          style={{ width: 240 }}
        />
        {!readOnly && (
          <label className="add-pictures">
            Add pictures by their tags
            <input
              id="add-tagged"
              type="file"
              multiple
              accept="image/*,.heic,.heif"
              onChange={(e) => {
                const files = [...(e.target.files ?? [])].map((f) => ({ blob: f, name: f.name, station: place, kind: 'photo' as const }));
                void dispatch(addFiles(caseId, files, me));
                e.target.value = '';
              }}
            />
          </label>
        )}
        <Button href={`/api/cases/${caseId}/tags.pdf`} target="_blank">
          Print part tags
        </Button>
      </div>
      <div className="pictures-grid">
        <section className="pane" aria-label="All pictures">
          {shown.length === 0 && (
            <p className="quiet">
              No pictures {place === null ? 'in this case yet' : 'of this place yet'}. Take them with the phone: the code at the right opens
              its page.
            </p>
          )}
          <div className="picture-wall" ref={box}>
            <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
              {rows.getVirtualItems().map((row) => (
                <div key={row.key} className="picture-row" style={{ transform: `translateY(${row.start}px)` }}>
                  {shown.slice(row.index * columns, (row.index + 1) * columns).map((p) => (
                    <PictureCell key={`${p.station}${p.photo.value.sha256}`} shown={p} />
                  ))}
                </div>
              ))}
            </div>
          </div>
        </section>
        <div className="stack">
          <ReadAll />
          <PhoneLink caseId={caseId} />
          <section className="pane" aria-label="On the way and set aside">
            <h2>On the way and set aside</h2>
            <UploadList caseId={caseId} />
            <p className="quiet">
              A picture whose tag is missing, foreign, of another case or contradicts the place chosen is never filed by guess: it waits
              here with the reason.
            </p>
          </section>
          {view.clips.length > 0 && (
            <section className="pane" aria-label="Clips of the whole engine">
              <h2>Clips of the whole engine</h2>
              <Clips clips={view.clips} station={null} />
            </section>
          )}
        </div>
      </div>
    </div>
  );
}

function PictureCell({ shown }: { shown: Shown }): ReactNode {
  const { caseId } = useCase();
  const { value: p, version } = shown.photo;
  const doubt = clockDoubt(p.takenAt, version.time);
  const body = (
    <>
      <img src={`/api/cases/${caseId}/photos/${p.sha256}/thumb`} alt="" loading="lazy" decoding="async" />
      <span className="picture-name">{shown.name}</span>
      <span className="quiet">
        {p.shot ? `${p.shot} · ` : ''}
        {version.author.name}
        {shown.tagged ? ' · by tag' : ''}
        {shown.blurred ? ' · blurred for others' : ''}
      </span>
      {doubt && (
        <span className="fault" title={doubt}>
          camera clock
        </span>
      )}
    </>
  );
  return shown.station === '' ? (
    <a className="picture-cell" href={`/api/cases/${caseId}/photos/${p.sha256}/work`} target="_blank" rel="noreferrer">
      {body}
    </a>
  ) : (
    <Link className="picture-cell" to={`/case/${caseId}/station/${shown.station}`}>
      {body}
    </Link>
  );
}

/** The way onto the phone: a code to be read off the screen, and the address in words. */
function PhoneLink({ caseId }: { caseId: string }): ReactNode {
  const [svg, setSvg] = useState('');
  const { data: network } = useNetworkQuery();
  const host = network?.addresses[0] ?? window.location.origin;
  const address = `${host}/capture/${caseId}`;
  const local = /^https?:\/\/(127\.|localhost)/.test(host);
  useEffect(() => {
    void QRCode.toString(address, { type: 'svg', margin: 1, color: { dark: COLOUR.ink, light: COLOUR.white } }).then(setSvg);
  }, [address]);
  return (
    <section className="pane phone-link" aria-label="On the phone">
      <h2>On the phone</h2>
      <div className="row">
        <img src={`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`} width="132" height="132" alt="Code of the capture page" />
        <div>
          <Link to={`/capture/${caseId}`}>Open the capture page</Link>
          <p className="quiet">
            {local
              ? 'Only this computer reaches this address. Start with "npm start -- --lan" to let phones in.'
              : 'Phones in the shop’s network reach this address.'}
          </p>
        </div>
      </div>
      <Input readOnly size="small" value={address} aria-label="Address of the capture page" onFocus={(e) => e.currentTarget.select()} />
    </section>
  );
}
