import { Button, Segmented, Select, Switch } from 'antd';
import { WEAR_CLASS_INFO } from '@true-ledger/core/damage';
import {
  FORM_NAMES,
  MAP_CLASSES,
  RECIPES,
  recipeSpecimen,
  SEVERITIES,
  SEVERITY_WORDS,
  SPECIMEN_FORMS,
  type Damage,
  type Severity,
  type SpecimenForm,
  type SurfaceMaps,
  type SurfaceSpecimen,
} from '@true-ledger/core/specimen';
import { useMemo, useRef, useState, type ReactNode } from 'react';
import { NumberField } from '../fields/NumberField.js';
import { useSearchParams } from 'react-router';
import { saveBlob } from '../app/saveBlob.js';
import { usePainted } from './usePainted.js';
import { LAMP_WORDS, LAMPS, TABLE_WORDS, TABLES, type Lamp, type Table } from './room.js';
import { Specimen3D, type SpecimenHandle } from './Specimen3D.js';
import { DamageFields } from './DamageFields.js';
import './studio.css';

/** Long sides of saved pictures, pixels. */
const SIZES = [640, 1280, 1920] as const;

/** The specimen studio: damage by its parameters, painted, lit and turned in hand. */
export function StudioPage(): ReactNode {
  const [params, setParams] = useSearchParams();
  const recipe = RECIPES.find((r) => r.pattern === params.get('pattern')) ?? RECIPES[0]!;
  const severity = (SEVERITIES.find((s) => String(s) === params.get('severity')) ?? 2) as Severity;
  const size = SIZES.find((s) => String(s) === params.get('size')) ?? 1280;
  const [seed, setSeed] = useState(11);
  const [table, setTable] = useState<Table>('oak');
  const [lamp, setLamp] = useState<Lamp>('overhead');
  const [tag, setTag] = useState(true);
  const [own, setOwn] = useState<readonly Damage[] | null>(null);
  const [problem, setProblem] = useState('');
  const handle = useRef<SpecimenHandle>(null);
  const key = `${recipe.pattern} ${severity} ${seed} ${own ? JSON.stringify(own) : ''}`;
  const specimen: SurfaceSpecimen = useMemo(() => {
    const made = recipeSpecimen(recipe, severity, seed);
    return own ? { ...made, damages: own } : made;
  }, [recipe, severity, seed, own]);
  const { maps, problem: unpainted } = usePainted(specimen, recipe.form, key);
  const shown = useMemo(
    () =>
      maps
        ? {
            form: recipe.form,
            maps: maps.maps,
            key: maps.key,
            words: recipe.name,
            debris: recipe.debris ? { kind: recipe.debris, severity } : null,
          }
        : null,
    // The form and the maps change together, when the maps are painted.
    [maps],
  );
  const setting = useMemo(() => ({ table, lamp, tag }), [table, lamp, tag]);
  const busy = maps?.key !== key;
  const choose = (pattern: string, s: Severity): void => {
    setOwn(null);
    setParams({ pattern, severity: String(s), size: String(size) }, { replace: true });
  };
  const save = (): void => {
    handle.current
      ?.picture(size, (size * 3) / 4)
      .then((blob) => saveBlob(`${recipe.pattern}-${severity}.jpg`, blob))
      .catch((error: unknown) => setProblem(error instanceof Error ? error.message : 'The picture could not be made.'));
  };
  const shares = maps ? trueShares(maps.maps) : [];
  return (
    <div className="page studio">
      <div className="page-head">
        <h1>Specimen studio</h1>
        <span className="quiet">Rendered specimens: what a pattern looks like, to hold a part against. Real parts vary.</span>
      </div>
      <div className="studio-grid">
        <Specimen3D
          specimen={shown}
          setting={setting}
          label={`${recipe.name}, ${SEVERITY_WORDS[severity]}, rendered specimen`}
          handle={handle}
        />
        <div className="studio-side">
          <label>
            Pattern
            <Select
              value={recipe.pattern}
              aria-label="Pattern"
              showSearch={{ optionFilterProp: 'label' }}
              onChange={(p: string) => choose(p, severity)}
              options={SPECIMEN_FORMS.map((form) => ({
                label: FORM_NAMES[form],
                options: RECIPES.filter((r) => r.form === form).map((r) => ({ value: r.pattern, label: r.name })),
              }))}
            />
          </label>
          <Segmented
            block
            aria-label="How far gone"
            value={severity}
            onChange={(s) => choose(recipe.pattern, s)}
            options={SEVERITIES.map((s) => ({ value: s, label: SEVERITY_WORDS[s] }))}
          />
          <div className="row">
            <label>
              Table
              <Select
                value={table}
                aria-label="Table"
                onChange={setTable}
                options={TABLES.map((t) => ({ value: t, label: TABLE_WORDS[t] }))}
              />
            </label>
            <label>
              Light
              <Select value={lamp} aria-label="Light" onChange={setLamp} options={LAMPS.map((l) => ({ value: l, label: LAMP_WORDS[l] }))} />
            </label>
          </div>
          <div className="row">
            <label className="inline">
              <Switch size="small" checked={tag} onChange={setTag} /> Tag in view
            </label>
            <label className="inline">
              Piece no.{' '}
              <NumberField size="small" whole min={1} max={9999} value={seed} onChange={(v) => setSeed(v ?? 1)} aria-label="Piece number" />
            </label>
          </div>
          <div className="row">
            <Button type="primary" onClick={save} disabled={busy || !maps}>
              Save picture
            </Button>
            <Select
              value={size}
              aria-label="Size of the picture"
              onChange={(s) => setParams({ pattern: recipe.pattern, severity: String(severity), size: String(s) }, { replace: true })}
              options={SIZES.map((s) => ({ value: s, label: `${s} × ${(s * 3) / 4}` }))}
            />
            <Button
              disabled={!maps}
              onClick={() =>
                maps &&
                saveBlob(
                  `${recipe.pattern}-${severity}.json`,
                  new Blob([JSON.stringify(truthFile(recipe.form, specimen, maps.maps), null, 1)], { type: 'application/json' }),
                )
              }
            >
              Save what is true
            </Button>
            {busy && (
              <span className="quiet" role="status">
                painting …
              </span>
            )}
          </div>
          {(problem || unpainted) && <p className="fault">{problem || unpainted}</p>}
          {shares.length > 0 && (
            <table className="true-shares">
              <caption>True share of the surface</caption>
              <tbody>
                {shares.map((s) => (
                  <tr key={s.name}>
                    <th>{s.name}</th>
                    <td className="figure">{s.percent.toFixed(1)} %</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {!recipe.debris && <DamageFields damages={specimen.damages} changed={own !== null} onChange={setOwn} />}
        </div>
      </div>
    </div>
  );
}

function trueShares(maps: SurfaceMaps): Array<{ name: string; percent: number }> {
  const counts = new Array<number>(MAP_CLASSES.length).fill(0);
  for (const c of maps.truth) counts[c]!++;
  return MAP_CLASSES.flatMap((c, k) =>
    counts[k]! > 0 && c !== 'sound'
      ? [{ name: c === 'hole' ? 'Oil hole' : WEAR_CLASS_INFO[c].name, percent: (100 * counts[k]!) / maps.truth.length }]
      : [],
  );
}

/** Parameters and true classes on a grid of 36 × 12, for those who try a reader of their own. */
function truthFile(form: SpecimenForm, specimen: SurfaceSpecimen, maps: SurfaceMaps): object {
  const [columns, rows] = [36, 12];
  const grid = Object.fromEntries(MAP_CLASSES.map((c) => [c, Array.from({ length: columns }, () => new Array<number>(rows).fill(0))]));
  const each = (maps.columns / columns) * (maps.rows / rows);
  for (let y = 0; y < maps.rows; y++)
    for (let x = 0; x < maps.columns; x++) {
      const name = MAP_CLASSES[maps.truth[y * maps.columns + x]!]!;
      grid[name]![Math.floor((x * columns) / maps.columns)]![Math.floor((y * rows) / maps.rows)]! += 1 / each;
    }
  for (const c of MAP_CLASSES)
    if (grid[c]!.every((column) => column.every((v) => v === 0))) delete grid[c];
    else grid[c] = grid[c]!.map((column) => column.map((v) => Number(v.toFixed(3))));
  return { format: 'true-ledger/specimen', version: 1, form, specimen, lines: maps.lines, specks: maps.specks, shares: grid };
}
