import { App as AntApp, ConfigProvider } from 'antd';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { BrowserRouter } from 'react-router';
import { App } from './app/App.js';
import { NewVersion } from './app/NewVersion.js';
import './app/tokens.css';
import './app/fonts.css';
import { restoreEntries } from './app/restore.js';
import { store } from './app/store.js';
// In this order: later ones refine earlier ones, for narrow windows and for print.
import './app/styles.css';
import './frame/frame.css';
import './stages/bench/bench.css';
import './stages/station/station.css';
import './stages/intake/intake.css';
import './stages/measure/entry.css';
import './stages/cause/cause.css';
import './stages/document/document.css';
import './app/narrow.css';
import './stages/opening/opening.css';
import './stages/strip/strip.css';
import './capture/capture.css';
import './stages/intake/custody.css';
import { theme } from './app/theme.js';

restoreEntries();

createRoot(document.getElementById('root') as HTMLElement).render(
  <Provider store={store}>
    <ConfigProvider theme={theme} wave={{ disabled: true }}>
      <AntApp>
        <BrowserRouter>
          <NewVersion />
          <App />
        </BrowserRouter>
      </AntApp>
    </ConfigProvider>
  </Provider>,
);
