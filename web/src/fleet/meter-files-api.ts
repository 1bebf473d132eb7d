import type { feedRoutes } from '@lanternwright/contract/feed';
import { fromContract } from '../from-contract.ts';
import type { meterFileRoutes } from '@lanternwright/contract/exchange';
import { api } from '../api.ts';

type FeedRoutes = typeof feedRoutes;
type MeterFileRoutes = typeof meterFileRoutes;

const meterFilesApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      // A file is sent as it is.
      sendMeterFile: build.mutation<{ id: string }, File>({
        query: (file) => ({
          url: 'api/exchange/meters',
          method: 'POST',
          params: { name: file.name.slice(0, 120) },
          headers: { 'Content-Type': 'text/csv' },
          body: file,
        }),
      }),
      meterFile: read<MeterFileRoutes['one']>('/api/exchange/meters/:id', {
        providesTags: ['meter-file'],
        keepUnusedDataFor: 0,
      }),
      takeMeterFile: write<MeterFileRoutes['take']>('post', '/api/exchange/meters/:id/take', {
        invalidatesTags: ['meter-file'],
      }),
      dropMeterFile: write<MeterFileRoutes['drop']>('post', '/api/exchange/meters/:id/drop'),
      feed: read<FeedRoutes['stand']>('/api/feed', { providesTags: ['feed'] }),
      askFeed: write<FeedRoutes['ask']>('post', '/api/feed/ask', {
        invalidatesTags: ['feed', 'fleet', 'unit', 'plan'],
      }),
    };
  },
});

export const {
  useSendMeterFileMutation,
  useMeterFileQuery,
  useTakeMeterFileMutation,
  useDropMeterFileMutation,
  useFeedQuery,
  useAskFeedMutation,
} = meterFilesApi;
