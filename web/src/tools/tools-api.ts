import type { ListedTool } from '@lanternwright/contract/tools';
import type { Tool } from '@lanternwright/core/tool';
import { api } from '../api.ts';

export const toolsApi = api.injectEndpoints({
  endpoints: (build) => ({
    tools: build.query<ListedTool[], void>({ query: () => 'api/tools', providesTags: ['tools'] }),
    saveTool: build.mutation<ListedTool, { seenVersion: number; tool: Tool }>({
      query: (body) => ({ url: 'api/tools', method: 'PUT', body }),
      invalidatesTags: ['tools'],
    }),
    retireTool: build.mutation<unknown, { id: string; seenVersion: number }>({
      query: ({ id, seenVersion }) => ({
        url: `api/tools/${id}`,
        method: 'DELETE',
        params: { seenVersion },
      }),
      invalidatesTags: ['tools'],
    }),
  }),
});

export const { useToolsQuery, useSaveToolMutation, useRetireToolMutation } = toolsApi;
