import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.js';
import { uploadReducer } from '../capture/queueState.js';
import { outboxReducer } from './outboxState.js';

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer, outbox: outboxReducer, uploads: uploadReducer },
  middleware: (build) => build({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
});

export type RootState = ReturnType<typeof store.getState>;
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
