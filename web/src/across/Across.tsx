import { Alert, App, Button, Input, Segmented, Select, Switch } from 'antd';
import type { AcrossAnswer, Me } from '@true-ledger/contract';
import { acrossCsv, bulletinOf, ENOUGH, type AcrossStatistics, type CountedShare } from '@true-ledger/core/across';
import { cause, percentText } from '@true-ledger/core/cause';
import { PART_NAMES } from '@true-ledger/core/engine';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { Dialog } from '../app/Dialog.js';
import { useAcrossQuery, useSwitchPriorsMutation } from '../app/api.js';
import { saveBlob } from '../app/saveBlob.js';
import { asProblem } from '../app/server.js';
import { Waiting } from '../app/Waiting.js';
import { FoundCases } from './FoundCases.js';
import { ReliabilityChart, ShareChart } from './ShareCharts.js';
import './across.css';

const nameOfCause = (id: string): string => cause(id)?.name ?? id;
const nameOfPart = (part: string): string => PART_NAMES[part as keyof typeof PART_NAMES] ?? part;

/** What many cases say: what fails in which engine, how right the shop and the program were, what is known of those given back. */
export function Across({ me }: { me: Me }): ReactNode {
  const { data, error } = useAcrossQuery(undefined, { refetchOnMountOrArgChange: true });
  const [words, setWords] = useState('');
  if (error) return <Alert type="error" role="alert" title={asProblem(error).sentence} />;
  if (!data) return <Waiting what="Counting the cases" />;
  return (
    <div className="page">
      <div className="page-head">
        <h1>Across cases</h1>
        <Input.Search
          allowClear
          placeholder="Find words, parts, marks, causes"
          aria-label="Find in all cases"
          style={{ width: 330 }}
          onChange={(e) => setWords(e.target.value)}
        />
        <Link to="/parts">Parts shelf</Link>
        <Button
          disabled={data.statistics.cases === 0}
          onClick={() =>
            saveBlob('across-cases.csv', new Blob([acrossCsv(data.statistics, (id) => data.cases[id]?.number ?? id)], { type: 'text/csv' }))
          }
        >
          As CSV
        </Button>
        <Button disabled={data.statistics.cases === 0} href="/api/across/cases.csv" download="cases.csv">
          Cases as CSV
        </Button>
      </div>
      {words.trim() !== '' ? <FoundCases words={words} /> : <Statistics me={me} answer={data} />}
    </div>
  );
}

function Statistics({ me, answer }: { me: Me; answer: AcrossAnswer }): ReactNode {
  const { statistics: s } = answer;
  const [family, setFamily] = useState<string | null>(null);
  const [what, setWhat] = useState<'causes' | 'parts'>('causes');
  const [behind, setBehind] = useState<{ readonly title: string; readonly ids: readonly string[] } | null>(null);
  if (s.cases === 0)
    return (
      <p className="quiet">
        No case is counted yet. Every case that has an engine is; what was confirmed in it counts once it is, what proved so once an outcome
        says it.
      </p>
    );
  const shown = s.families.find((f) => f.family === family) ?? s.families[0]!;
  const shares = shown[what];
  const nameOf = what === 'causes' ? nameOfCause : nameOfPart;
  const of = what === 'causes' ? shown.judged : shown.cases;
  return (
    <>
      <div className="across-grid">
        <section className="pane" aria-label="By kind of engine">
          <h2>
            What fails in
            <Select
              aria-label="Kind of engine"
              style={{ width: 260 }}
              value={shown.family}
              options={s.families.map((f) => ({ value: f.family, label: `${f.name} (${f.cases})` }))}
              onChange={(f) => {
                setFamily(f);
                setBehind(null);
              }}
            />
            <Segmented
              aria-label="What is counted"
              value={what}
              options={[
                { value: 'causes', label: 'Causes' },
                { value: 'parts', label: 'Parts' },
              ]}
              onChange={(v) => {
                setWhat(v as 'causes' | 'parts');
                setBehind(null);
              }}
            />
          </h2>
          {of < ENOUGH ? (
            <>
              <p className="quiet">
                {of === 0 ? 'None of them has a cause yet.' : `${of} of them: too few to make shares of. They are listed as they are.`}
              </p>
              <ShareList shares={shares} nameOf={nameOf} onOpen={setBehind} />
            </>
          ) : (
            <ShareChart
              shares={shares.slice(0, 12)}
              nameOf={nameOf}
              label={`${what === 'causes' ? 'Causes' : 'Parts'} of ${shown.name}`}
              onOpen={(share) => setBehind({ title: nameOf(share.key), ids: share.cases })}
            />
          )}
          <BulletinButton family={shown} answer={answer} />
          <p className="quiet">
            Of {of} case{of === 1 ? '' : 's'}, with the interval that so many leave open (90 %).{' '}
            {what === 'causes' ? 'What an outcome proved counts before what was confirmed.' : 'Of grade 2 and more.'} Press a bar for its
            cases.
          </p>
        </section>
        <section className="pane" aria-label="How right">
          <h2>How right</h2>
          <Rightness s={s} />
        </section>
      </div>
      {behind && (
        <section className="pane" aria-label="Cases behind it">
          <h2>
            {behind.title} <span className="quiet">{behind.ids.length} cases</span>
          </h2>
          <CaseLinks ids={behind.ids} answer={answer} />
        </section>
      )}
      <div className="across-grid">
        <section className="pane" aria-label="Again and again">
          <h2>Failed again of the same</h2>
          {s.repeats.length === 0 ? (
            <p className="quiet">No engine with a record of its own came twice for the same cause.</p>
          ) : (
            <ul>
              {s.repeats.map((r) => (
                <li key={`${r.engine} ${r.cause}`}>
                  <Link to={`/oil/${r.engine}`}>{answer.engines[r.engine]?.mark ?? 'an engine'}</Link> {nameOfCause(r.cause)}:{' '}
                  <CaseLinks ids={r.cases} answer={answer} inline />
                </li>
              ))}
            </ul>
          )}
          <h2>To be asked</h2>
          {answer.asked.length === 0 ? (
            <p className="quiet">Of nobody it is due to be asked what became of his engine.</p>
          ) : (
            <ul>
              {answer.asked.map((a) => (
                <li key={a.id}>
                  <span className="figure">{a.due}</span>{' '}
                  <Link to={`/case/${a.id}/document`}>
                    <span className="figure">{a.number}</span> {a.title}
                  </Link>{' '}
                  <span className="quiet">{a.why}</span>
                </li>
              ))}
            </ul>
          )}
        </section>
        <section className="pane" aria-label="Priors">
          <h2>What it does to the next case</h2>
          <PriorSwitch me={me} on={answer.ownPriors} proven={s.proven} />
          <h2>Estimates and hands</h2>
          <Kept s={s} />
        </section>
      </div>
    </>
  );
}

/** What to look at first in this kind of engine, to be printed or copied. */
function BulletinButton({ family, answer }: { family: AcrossStatistics['families'][number]; answer: AcrossAnswer }): ReactNode {
  const [open, setOpen] = useState(false);
  const bulletin = bulletinOf(family, (id) => answer.cases[id]?.number ?? id.slice(0, 8));
  if (!bulletin) return null;
  const looks = bulletin.looks.map((l) => `${l.sign} (${l.cause}). ${l.step}, ${l.minutes} min`);
  const text = [bulletin.title, '', ...looks, '', ...bulletin.lines].join('\n');
  return (
    <>
      <Button onClick={() => setOpen(true)}>Bulletin of this engine</Button>
      <Dialog
        open={open}
        title={bulletin.title}
        width={720}
        styles={{ body: { maxHeight: '60vh', overflowY: 'auto' } }}
        okText="Take text"
        cancelText="Close"
        onOk={() => saveBlob(`bulletin-${family.family}.txt`, new Blob([text], { type: 'text/plain' }))}
        onCancel={() => setOpen(false)}
      >
        <ol>
          {bulletin.looks.map((l) => (
            <li key={`${l.sign} ${l.step}`}>
              {l.sign} <span className="quiet">{l.cause}</span>
              <br />
              <span className="quiet">
                {l.step}, <span className="figure">{l.minutes} min</span>
              </span>
            </li>
          ))}
        </ol>
        {bulletin.lines.map((l) => (
          <p key={l}>{l}</p>
        ))}
      </Dialog>
    </>
  );
}

function ShareList({
  shares,
  nameOf,
  onOpen,
}: {
  shares: readonly CountedShare[];
  nameOf: (key: string) => string;
  onOpen: (b: { title: string; ids: readonly string[] }) => void;
}): ReactNode {
  return (
    <ul>
      {shares.map((x) => (
        <li key={x.key}>
          <button type="button" className="linkish" onClick={() => onOpen({ title: nameOf(x.key), ids: x.cases })}>
            {nameOf(x.key)}
          </button>{' '}
          <span className="figure">{x.k}</span>
        </li>
      ))}
    </ul>
  );
}

function CaseLinks({ ids, answer, inline }: { ids: readonly string[]; answer: AcrossAnswer; inline?: boolean }): ReactNode {
  const links = ids.map((id) => (
    <Link key={id} to={`/case/${id}/cause`}>
      <span className="figure">{answer.cases[id]?.number ?? id.slice(0, 8)}</span> {inline ? '' : (answer.cases[id]?.title ?? '')}
    </Link>
  ));
  return inline ? <>{links.map((l, i) => (i === 0 ? l : [', ', l]))}</> : <div className="case-links">{links}</div>;
}

/** How right builder and program were, of the cases whose cause was proved since; never without how many those are. */
function Rightness({ s }: { s: AcrossStatistics }): ReactNode {
  if (s.proven === 0)
    return <p className="quiet">No outcome says yet what a cause really was. Until one does, nobody here knows how right anybody was.</p>;
  const line = (name: string, x: AcrossStatistics['builder']): ReactNode => (
    <tr>
      <th scope="row">{name}</th>
      <td className="figure">
        {x.k} of {x.n}
      </td>
      <td className="figure">
        {x.n < ENOUGH ? 'too few for a share' : `${percentText(x.share)}, ${percentText(x.low)} to ${percentText(x.high)}`}
      </td>
    </tr>
  );
  return (
    <>
      <table className="lines">
        <tbody>
          {line('What was confirmed was so', s.builder)}
          {line('What the program had first was so', s.program)}
        </tbody>
      </table>
      {s.proven >= ENOUGH ? (
        <>
          <ReliabilityChart bins={s.reliability} />
          <p className="quiet">
            How often a cause was so, of those the program gave so much to, in {s.proven} cases; on the line it would be right. It costs{' '}
            <b className="figure">{(-(s.logScore ?? 0)).toFixed(1)}</b> bits a cause (0 is perfect; what it never named counts as 1 %).
            These cases are its judges only where nobody chose them by what it said.
          </p>
        </>
      ) : (
        <p className="quiet">With {s.proven} proven cases no diagram is drawn.</p>
      )}
    </>
  );
}

function PriorSwitch({ me, on, proven }: { me: Me; on: boolean; proven: number }): ReactNode {
  const [change, { isLoading }] = useSwitchPriorsMutation();
  const { message } = App.useApp();
  return (
    <>
      <label className="prior-switch">
        <Switch
          aria-label="Own frequencies as priors"
          checked={on}
          disabled={me.account.role !== 'owner'}
          loading={isLoading}
          onChange={(next) =>
            void change(next)
              .unwrap()
              .catch((e: unknown) => void message.error(asProblem(e).sentence, 8))
          }
        />
        <span>The shop’s own frequencies move the priors of cases opened from now on</span>
      </label>
      <p className="quiet">
        From {proven} proven case{proven === 1 ? '' : 's'}. The table counts as twenty cases beside the shop’s own, the shop as ten beside a
        kind of engine. It is a prior and never evidence; every case keeps those it was opened with.
      </p>
    </>
  );
}

function Kept({ s }: { s: AcrossStatistics }): ReactNode {
  const promise = (name: string, kept: AcrossStatistics['cost']): ReactNode => (
    <tr>
      <th scope="row">{name} over the estimate</th>
      <td className="figure">
        {kept
          ? `× ${kept.median.toFixed(2)}, four of five from ${kept.low.toFixed(2)} to ${kept.high.toFixed(2)} (${kept.n})`
          : 'too few known'}
      </td>
    </tr>
  );
  const hands = (name: string, a: AcrossStatistics['hands']): ReactNode => (
    <tr>
      <th scope="row">{name}</th>
      <td className="figure">
        {a.places < ENOUGH
          ? `${a.places} places, too few`
          : `κ ${a.kappa?.toFixed(2) ?? '–'}, equal at ${a.equal} of ${a.places}, within one at ${a.withinOne}`}
      </td>
    </tr>
  );
  return (
    <table className="lines">
      <tbody>
        {promise('Money', s.cost)}
        {promise('Days', s.days)}
        {hands('Two builders on one place', s.hands)}
        {hands('Reader and the hand that confirmed', s.reader)}
      </tbody>
    </table>
  );
}
