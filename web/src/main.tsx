// First what every page shares: the style sheets of components refine it.
import './app/tokens.css';
import './app/fonts.css';
import './app/styles.css';
import { App as AntApp, ConfigProvider } from 'antd';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { BrowserRouter } from 'react-router';
import { App } from './app/App.js';
import { NewVersion } from './app/NewVersion.js';
import { restoreEntries } from './app/restore.js';
import { store } from './app/store.js';
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
