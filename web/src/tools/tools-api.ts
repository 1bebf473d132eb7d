import type { toolsRoutes } from '@lanternwright/contract/tools';
import { fromContract } from '../from-contract.ts';
import { api } from '../api.ts';

type ToolsRoutes = typeof toolsRoutes;

export const toolsApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      tools: read<ToolsRoutes['list']>('/api/tools', { providesTags: ['tools'] }),
      saveTool: write<ToolsRoutes['keep']>('put', '/api/tools', { invalidatesTags: ['tools'] }),
      retireTool: write<ToolsRoutes['retire']>('delete', '/api/tools/:id', { invalidatesTags: ['tools'] }),
    };
  },
});

export const { useToolsQuery, useSaveToolMutation, useRetireToolMutation } = toolsApi;
