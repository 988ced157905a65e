import { skipToken } from '@reduxjs/toolkit/query';
import { Progress } from 'antd';
import type { ReactNode } from 'react';
import { usePdfRunQuery } from '../../app/api.js';

const ASK_MS = 400;

/** How far the PDF of a run is; nothing when none is being made. */
export function PdfRun({ caseId, run }: { caseId: string; run: string | null }): ReactNode {
  const { currentData } = usePdfRunQuery(run ? { caseId, run } : skipToken, { pollingInterval: ASK_MS });
  const progress = run ? currentData?.progress : null;
  if (!progress) return null;
  return (
    <span className="row" role="status">
      {progress.stage === 'pictures' ? (
        <>
          <Progress
            percent={Math.round((100 * progress.done) / Math.max(1, progress.total))}
            size="small"
            showInfo={false}
            style={{ width: 90 }}
          />
          <span className="quiet figure">
            picture {progress.done} of {progress.total}
          </span>
        </>
      ) : (
        <span className="quiet">pages are being set</span>
      )}
    </span>
  );
}
