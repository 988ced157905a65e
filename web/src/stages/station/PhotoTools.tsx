import { Button } from 'antd';
import type { StationView } from '@true-ledger/core/case';
import { isFlattened, isFound, isRead } from '@true-ledger/core/photo';
import type { ReactNode } from 'react';
import { useRecord } from '../../app/caseContext.js';
import { tagWords } from './PictureTools.js';
import { takenAway, type ShownPicture } from './shownPicture.js';

/** What can be done to the shown picture. Each is offered only where it can be done. */
export function PhotoTools({
  station,
  shown,
  reading,
  onRead,
  onPlace,
  onBlur,
  drawing,
  onDraw,
  balanced,
  onBalance,
}: {
  station: StationView;
  shown: ShownPicture;
  /** A reading is running. */
  reading: boolean;
  onRead: () => void;
  onPlace: () => void;
  onBlur: () => void;
  /** Whether a stroke on the picture draws; null where the picture is not developed. */
  drawing: boolean | null;
  onDraw: () => void;
  /** Whether its colours are those the tag tells. */
  balanced: boolean;
  onBalance: () => void;
}): ReactNode {
  const record = useRecord();
  const { part, surface } = station.station;
  const { photo, corners, blur, tag, read } = shown;
  return (
    <>
      {surface && isRead(part) && (isFound(part) || corners) && (
        <Button size="small" type={read ? 'default' : 'primary'} disabled={reading} onClick={onRead}>
          {read ? 'Read it again' : 'Read the picture'}
        </Button>
      )}
      {surface && isFlattened(part) && (
        <Button size="small" onClick={onPlace}>
          {corners ? 'Move the corners' : 'Place four corners'}
        </Button>
      )}
      <Button size="small" onClick={onBlur}>
        {blur && blur.regions.length > 0 ? 'Blur more or less' : 'Blur'}
      </Button>
      {drawing !== null && (
        <Button size="small" type={drawing ? 'primary' : 'default'} aria-pressed={drawing} onClick={onDraw}>
          Draw on it
        </Button>
      )}
      {tag && <ColourButton shown={shown} balanced={balanced} onBalance={onBalance} />}
      <Button
        size="small"
        onClick={() => record(...takenAway(station, photo.sha256))}
        title="Takes the picture from this place; the ledger keeps it, and u brings it back"
      >
        Take it away
      </Button>
    </>
  );
}

/** Changes between the colours of the file and those the tag beside the part tells; a reader of the case may too. */
export function ColourButton({ shown, balanced, onBalance }: { shown: ShownPicture; balanced: boolean; onBalance: () => void }): ReactNode {
  return (
    shown.tag && (
      <Button size="small" onClick={onBalance} title={tagWords(shown.tag)}>
        {balanced ? 'Colours as taken' : 'Colours by tag'}
      </Button>
    )
  );
}
