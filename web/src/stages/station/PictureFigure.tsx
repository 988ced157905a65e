import type { StationView } from '@true-ledger/core/case';
import type { ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import type { Pen, Place } from './pen.js';
import { PictureMarks } from './PictureMarks.js';
import { GainFilter, TagOverlay } from './PictureTools.js';
import { pictureUrl, type ShownPicture } from './shownPicture.js';
import type { Flattened } from './useFlattened.js';

/** The picture with what lies on it: tag, blurred places, marks, corners. `pen` draws on it; null where nothing is drawn. */
export function PictureFigure({
  station,
  shown: { photo, corners, tag, blur },
  flat,
  balanced,
  pen,
  cursor,
  onCursor,
}: {
  station: StationView;
  shown: ShownPicture;
  flat: Flattened;
  balanced: boolean;
  pen: Pen | null;
  cursor: Place | null;
  onCursor: (place: Place | null) => void;
}): ReactNode {
  const { caseId } = useCase();
  const box = `0 0 ${photo.width} ${photo.height}`;
  return (
    <figure className="photo photo-shown">
      <img
        src={pictureUrl(caseId, photo.sha256, 'work')}
        alt={`${station.station.name}: ${photo.name}${photo.standIn ? ', rendered stand-in' : ''}`}
        width={photo.width}
        height={photo.height}
        style={tag && balanced ? { filter: 'url(#tag-gains)' } : undefined}
      />
      {tag && <GainFilter id="tag-gains" gains={tag.gains} />}
      {tag && <TagOverlay key={photo.sha256} tag={tag} size={photo} />}
      {blur && blur.regions.length > 0 && (
        <svg viewBox={box} aria-hidden="true" className="blur-shown">
          {blur.regions.map((b, i) => (
            <circle key={i} cx={b.x * photo.width} cy={b.y * photo.height} r={b.r * photo.width} className="blur-spot" />
          ))}
        </svg>
      )}
      {flat.sha256 === photo.sha256 && (
        <PictureMarks station={station} flat={flat} size={photo} pen={pen} cursor={cursor} onCursor={onCursor} />
      )}
      {corners && (
        <svg viewBox={box} aria-hidden="true">
          <polygon points={corners.map((c) => c.join(',')).join(' ')} />
        </svg>
      )}
    </figure>
  );
}
