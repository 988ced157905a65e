import { FORM_SURFACE, type SpecimenForm, type SurfaceMaps, type SurfaceSpecimen } from '@true-ledger/core/specimen';
import { useEffect, useState } from 'react';
import { compute } from '../workers/compute.js';

/** Textures across and along by form: fine where marks run, no more than a browser draws at once. */
const texels = (form: SpecimenForm): readonly [number, number] => {
  if (form === 'crown' || form === 'follower' || form === 'gear') return [900, 900];
  if (form === 'bore') return [1200, 1000];
  return FORM_SURFACE[form].spanDeg === 360 ? [2400, form === 'ring' ? 96 : 400] : [1440, form === 'thrust' ? 220 : 480];
};

/** The maps of a specimen, painted in a worker; those of the specimen before stay until they are there. `key` names the specimen. */
export function usePainted(
  specimen: SurfaceSpecimen,
  form: SpecimenForm,
  key: string,
): { maps: { key: string; maps: SurfaceMaps } | null; problem: string } {
  const [maps, setMaps] = useState<{ key: string; maps: SurfaceMaps } | null>(null);
  const [problem, setProblem] = useState('');
  useEffect(() => {
    let current = true;
    const timer = setTimeout(() => {
      compute()
        .paint(specimen, ...texels(form))
        .then((painted) => {
          if (current) setMaps({ key, maps: painted });
        })
        .catch(() => {
          if (current) setProblem('The specimen could not be painted here. Choose it again.');
        });
    }, 120);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [specimen, form, key]);
  return { maps, problem };
}
