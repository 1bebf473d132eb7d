import type { ListedTool } from '@lanternwright/contract/tools';
import type { Tool } from '@lanternwright/core/tool';
import { api } from '../api.ts';

export const toolsApi = api.injectEndpoints({
  endpoints: (build) => ({
    tools: build.query<ListedTool[], void>({ query: () => 'api/tools', providesTags: ['tools'] }),
    keepTool: build.mutation<ListedTool, Tool>({
      query: (body) => ({ url: 'api/tools', method: 'PUT', body }),
      invalidatesTags: ['tools'],
    }),
    retireTool: build.mutation<unknown, string>({
      query: (id) => ({ url: `api/tools/${id}`, method: 'DELETE' }),
      invalidatesTags: ['tools'],
    }),
  }),
});

export const { useToolsQuery, useKeepToolMutation, useRetireToolMutation } = toolsApi;
