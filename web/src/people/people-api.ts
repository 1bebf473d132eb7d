import type { peopleRoutes, Person } from '@lanternwright/contract/people';
import type { shopRoutes, ShopSettings } from '@lanternwright/contract/shop';
import { fromContract } from '../from-contract.ts';
import { may, pinIsEnough, type Capability } from '@lanternwright/core/access';
import { api } from '../api.ts';
import type { AppDispatch } from '../store.ts';

/** Once it is done, nothing of what the person saw stays in the page. */
async function forgetOnceDone(
  _arg: unknown,
  { dispatch, queryFulfilled }: { dispatch: AppDispatch; queryFulfilled: Promise<unknown> },
): Promise<void> {
  await queryFulfilled;
  dispatch(api.util.resetApiState());
}

type PeopleRoutes = typeof peopleRoutes;
type ShopRoutes = typeof shopRoutes;

export const peopleApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      session: read<PeopleRoutes['session']>('/api/people/session', { providesTags: ['session'] }),
      signIn: write<PeopleRoutes['signIn']>('post', '/api/people/session', { invalidatesTags: ['session'] }),
      signInWithCode: write<PeopleRoutes['signInWithCode']>('post', '/api/people/session/code', {
        invalidatesTags: ['session'],
      }),
      signInAsDemo: write<PeopleRoutes['signInAsDemo']>('post', '/api/people/session/demo', {
        invalidatesTags: ['session'],
      }),
      firstPerson: write<PeopleRoutes['first']>('post', '/api/people/first', {
        invalidatesTags: ['session'],
      }),
      beginShop: write<ShopRoutes['begin']>('post', '/api/shop/begin', { invalidatesTags: ['session'] }),
      peopleWithPin: read<PeopleRoutes['peopleWithPin']>('/api/people/with-pin'),
      changePerson: write<PeopleRoutes['changePerson']>('post', '/api/people/session/pin', {
        async onQueryStarted(_arg, { dispatch, queryFulfilled }) {
          // What one person sees, another may not; a refused PIN changes nothing.
          const done = await queryFulfilled.catch(() => null);
          if (done) dispatch(api.util.resetApiState());
        },
      }),
      signOut: write<PeopleRoutes['signOut']>('delete', '/api/people/session', {
        onQueryStarted: forgetOnceDone,
      }),
      signOutEverywhere: write<PeopleRoutes['signOutEverywhere']>(
        'post',
        '/api/people/me/sign-out-everywhere',
        { onQueryStarted: forgetOnceDone },
      ),
      changePassword: write<PeopleRoutes['changePassword']>('put', '/api/people/me/password'),
      setPin: write<PeopleRoutes['setPin']>('put', '/api/people/me/pin', { invalidatesTags: ['session'] }),
      setUnits: write<PeopleRoutes['setUnits']>('put', '/api/people/me/units', {
        // Units may stand in what was fetched, as lines of a history do.
        invalidatesTags: ['session', 'unit'],
      }),
      people: read<PeopleRoutes['list']>('/api/people', { providesTags: ['people'] }),
      addPerson: write<PeopleRoutes['add']>('post', '/api/people', { invalidatesTags: ['people'] }),
      alterPerson: write<PeopleRoutes['change']>('put', '/api/people/:id', { invalidatesTags: ['people'] }),
      switchOff: write<PeopleRoutes['switchOff']>('post', '/api/people/:id/off', {
        invalidatesTags: ['people'],
      }),
      newCode: write<PeopleRoutes['newCode']>('post', '/api/people/:id/code', {
        invalidatesTags: ['people'],
      }),
      saveDetails: write<PeopleRoutes['details']>('put', '/api/people/:id/details', {
        invalidatesTags: ['people'],
      }),
      morning: read<ShopRoutes['morning']>('/api/shop/morning', { providesTags: ['morning'] }),
      changeMorning: write<ShopRoutes['changeMorning']>('put', '/api/shop/morning', {
        invalidatesTags: ['morning'],
      }),
      sendMorning: write<ShopRoutes['sendMorning']>('post', '/api/shop/morning/send'),
      firstHour: read<ShopRoutes['firstHour']>('/api/shop/first-hour', {
        // Whatever of it is added, it is asked again.
        providesTags: ['session', 'people', 'tools', 'fleet', 'jobs'],
      }),
      backups: read<ShopRoutes['backups']>('/api/shop/backups'),
      changeSettings: write<ShopRoutes['change']>('put', '/api/shop/settings', {
        invalidatesTags: ['session'],
      }),
    };
  },
});

export const {
  useSessionQuery,
  useSignInMutation,
  useSignInWithCodeMutation,
  useSignInAsDemoMutation,
  useFirstPersonMutation,
  useBeginShopMutation,
  usePeopleWithPinQuery,
  useChangePersonMutation,
  useSignOutMutation,
  useSignOutEverywhereMutation,
  useChangePasswordMutation,
  useSetPinMutation,
  useSetUnitsMutation,
  usePeopleQuery,
  useAddPersonMutation,
  useAlterPersonMutation,
  useBackupsQuery,
  useFirstHourQuery,
  useMorningQuery,
  useChangeMorningMutation,
  useSendMorningMutation,
  useSaveDetailsMutation,
  useSwitchOffMutation,
  useNewCodeMutation,
  useChangeSettingsMutation,
} = peopleApi;

/** Who is signed in; pages behind the door can rely on somebody being there. */
export function usePerson(): Person | null {
  return useSessionQuery().data?.person ?? null;
}

/** Whether whoever is signed in may do something, as they came in. */
export function useMay(): (capability: Capability) => boolean {
  const { data } = useSessionQuery();
  return (capability) =>
    data?.person != null &&
    may(data.person.role, capability) &&
    (data.by !== 'pin' || pinIsEnough(capability));
}

/** What is set for the whole shop. */
export function useShop(): ShopSettings | null {
  return useSessionQuery().data?.shop ?? null;
}
