import type { programsRoutes } from '@lanternwright/contract/programs';
import { api } from '../api.ts';
import { fromContract } from '../from-contract.ts';

type Routes = typeof programsRoutes;

export const {
  useTokensQuery,
  useMakeTokenMutation,
  useEndTokenMutation,
  useWebhooksQuery,
  useMakeWebhookMutation,
  useEndWebhookMutation,
  useTryWebhookMutation,
  useDeliveriesQuery,
  useSendAgainMutation,
} = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    const changes = { invalidatesTags: ['programs' as const] };
    const seen = { providesTags: ['programs' as const] };
    return {
      tokens: read<Routes['tokens']>('/api/programs/tokens', seen),
      makeToken: write<Routes['makeToken']>('post', '/api/programs/tokens', changes),
      endToken: write<Routes['endToken']>('post', '/api/programs/tokens/:id/end', changes),
      webhooks: read<Routes['webhooks']>('/api/programs/webhooks', seen),
      makeWebhook: write<Routes['makeWebhook']>('post', '/api/programs/webhooks', changes),
      endWebhook: write<Routes['endWebhook']>('post', '/api/programs/webhooks/:id/end', changes),
      tryWebhook: write<Routes['tryWebhook']>('post', '/api/programs/webhooks/:id/try', changes),
      deliveries: read<Routes['deliveries']>('/api/programs/webhooks/:id/deliveries', seen),
      sendAgain: write<Routes['sendAgain']>('post', '/api/programs/deliveries/:id/again', changes),
    };
  },
});
