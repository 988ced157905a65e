import { matching, nullable, object, text } from '../../kit/schema.js';
import { bearingsOf } from '../../engine/bearings.js';
import { runSettingSchema } from '../../running/setting.js';
import { defineEntry } from '../define.js';

export const runKept = defineEntry({
  kind: 'run-kept',
  name: 'Setting',
  says: 'A way of running that is kept for the account with the wear it predicts at a bearing, and why it is shown. Setting null: taken out again.',
  body: object({ bearing: matching(/^(rod|main)\.[1-9]\d?$/), setting: nullable(runSettingSchema), note: text(600) }),
  stands: 'case',
  slot: (b) => `run:${b.bearing}`,
  tell: (b) =>
    b.setting === null
      ? `${b.bearing}: taken out`
      : `${b.bearing}: ${b.setting.speedRpm} rpm, load ${Math.round(100 * b.setting.loadShare)} %, oil ${b.setting.oilTemperatureC} °C${b.note ? `; ${b.note}` : ''}`,
  admit: (b, at) =>
    (at.layout && !bearingsOf(at.layout).includes(b.bearing)) || (b.setting !== null && b.setting.bearing !== b.bearing)
      ? {
          code: 'no-film',
          sentence: `This engine has no bearing "${b.bearing}" to let run like that. Nothing was recorded.`,
          field: 'bearing',
        }
      : null,
  ofCase: (all) => ({ runs: all.filter((e) => e.value.setting !== null) }),
});
