import type { toolsRoutes } from '@lanternwright/contract/tools';
import { api } from '../api.ts';
import { fromContract } from '../from-contract.ts';

type ToolsRoutes = typeof toolsRoutes;

/** Apart from the list, which the first screen loads. */
const toolCareApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      takeTool: write<ToolsRoutes['take']>('post', '/api/tools/:id/taken', { invalidatesTags: ['tools'] }),
      giveToolBack: write<ToolsRoutes['giveBack']>('post', '/api/tools/:id/returned', {
        invalidatesTags: ['tools'],
      }),
      recallTool: write<ToolsRoutes['recall']>('post', '/api/tools/:id/recalled', {
        invalidatesTags: ['tools'],
      }),
      toolMissing: write<ToolsRoutes['missing']>('post', '/api/tools/:id/missing', {
        invalidatesTags: ['tools'],
      }),
      toolFound: write<ToolsRoutes['found']>('post', '/api/tools/:id/found', { invalidatesTags: ['tools'] }),
      certifyTool: write<ToolsRoutes['certify']>('post', '/api/tools/:id/certificates', {
        invalidatesTags: ['tools'],
      }),
      toolRecords: read<ToolsRoutes['records']>('/api/tools/:id/records', { providesTags: ['tools', 'job'] }),
    };
  },
});

export const {
  useTakeToolMutation,
  useGiveToolBackMutation,
  useRecallToolMutation,
  useToolMissingMutation,
  useToolFoundMutation,
  useCertifyToolMutation,
  useToolRecordsQuery,
} = toolCareApi;
