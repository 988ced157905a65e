import { App as AntApp, ConfigProvider } from 'antd';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { BrowserRouter } from 'react-router';
import { App } from './app/App.js';
import './app/fonts.css';
import { restoreOutbox } from './app/outbox.js';
import { store } from './app/store.js';
import './app/styles.css';
import { theme } from './app/theme.js';

void store.dispatch(restoreOutbox());

createRoot(document.getElementById('root') as HTMLElement).render(
  <Provider store={store}>
    <ConfigProvider theme={theme} wave={{ disabled: true }}>
      <AntApp>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </AntApp>
    </ConfigProvider>
  </Provider>,
);
