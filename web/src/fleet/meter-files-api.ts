import type { MeterFile } from '@lanternwright/contract/exchange';
import type { FeedStand } from '@lanternwright/contract/feed';
import { api } from '../api.ts';

const meterFilesApi = api.injectEndpoints({
  endpoints: (build) => ({
    sendMeterFile: build.mutation<{ id: string }, File>({
      query: (file) => ({
        url: 'api/exchange/meters',
        method: 'POST',
        params: { name: file.name.slice(0, 120) },
        headers: { 'Content-Type': 'text/csv' },
        body: file,
      }),
    }),
    meterFile: build.query<MeterFile, string>({
      query: (id) => `api/exchange/meters/${id}`,
      providesTags: ['meter-file'],
      keepUnusedDataFor: 0,
    }),
    takeMeterFile: build.mutation<{ id: string }, string>({
      query: (id) => ({ url: `api/exchange/meters/${id}/take`, method: 'POST' }),
      invalidatesTags: ['meter-file'],
    }),
    dropMeterFile: build.mutation<{ id: string }, string>({
      query: (id) => ({ url: `api/exchange/meters/${id}/drop`, method: 'POST' }),
    }),
    feed: build.query<FeedStand, void>({ query: () => 'api/feed', providesTags: ['feed'] }),
    askFeed: build.mutation<FeedStand, void>({
      query: () => ({ url: 'api/feed/ask', method: 'POST' }),
      invalidatesTags: ['feed', 'fleet', 'unit', 'plan'],
    }),
  }),
});

export const {
  useSendMeterFileMutation,
  useMeterFileQuery,
  useTakeMeterFileMutation,
  useDropMeterFileMutation,
  useFeedQuery,
  useAskFeedMutation,
} = meterFilesApi;
