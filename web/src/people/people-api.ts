import { may, pinIsEnough, type Capability } from '@lanternwright/core/access';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import type {
  FirstPerson,
  ListedPerson,
  NewPerson,
  Person,
  PersonalDetails,
  Session,
  SignInCode,
} from '@lanternwright/contract/people';
import type {
  Backups,
  Begin,
  FirstHour,
  ShopSettings,
  MorningMail,
  MorningStand,
} from '@lanternwright/contract/shop';
import { api } from '../api.ts';
import type { AppDispatch } from '../store.ts';

/** A person, as whoever changes them saw them. */
interface Seen {
  id: string;
  seenVersion: number;
}

/** Once it is done, nothing of what the person saw stays in the page. */
async function forgetOnceDone(
  _arg: unknown,
  { dispatch, queryFulfilled }: { dispatch: AppDispatch; queryFulfilled: Promise<unknown> },
): Promise<void> {
  await queryFulfilled;
  dispatch(api.util.resetApiState());
}

export const peopleApi = api.injectEndpoints({
  endpoints: (build) => ({
    session: build.query<Session, void>({ query: () => 'api/people/session', providesTags: ['session'] }),
    signIn: build.mutation<Person, { login: string; password: string }>({
      query: (body) => ({ url: 'api/people/session', method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
    signInWithCode: build.mutation<Person, { login: string; code: string; password: string }>({
      query: (body) => ({ url: 'api/people/session/code', method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
    signInAsDemo: build.mutation<Person, { personId: string }>({
      query: (body) => ({ url: 'api/people/session/demo', method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
    firstPerson: build.mutation<Person, FirstPerson>({
      query: (body) => ({ url: 'api/people/first', method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
    beginShop: build.mutation<Person, Begin>({
      query: (body) => ({ url: 'api/shop/begin', method: 'POST', body }),
      invalidatesTags: ['session'],
    }),
    peopleWithPin: build.query<Pick<Person, 'id' | 'name'>[], void>({ query: () => 'api/people/with-pin' }),
    changePerson: build.mutation<Person, { personId: string; pin: string }>({
      query: (body) => ({ url: 'api/people/session/pin', method: 'POST', body }),
      async onQueryStarted(_arg, { dispatch, queryFulfilled }) {
        // What one person sees, another may not; a refused PIN changes nothing.
        const done = await queryFulfilled.catch(() => null);
        if (done) dispatch(api.util.resetApiState());
      },
    }),
    signOut: build.mutation<{ ok: true }, void>({
      query: () => ({ url: 'api/people/session', method: 'DELETE' }),
      onQueryStarted: forgetOnceDone,
    }),
    signOutEverywhere: build.mutation<{ ok: true }, void>({
      query: () => ({ url: 'api/people/me/sign-out-everywhere', method: 'POST' }),
      onQueryStarted: forgetOnceDone,
    }),
    changePassword: build.mutation<{ ok: true }, { current: string; password: string }>({
      query: (body) => ({ url: 'api/people/me/password', method: 'PUT', body }),
    }),
    setPin: build.mutation<{ ok: true }, { password: string; pin: string | null }>({
      query: (body) => ({ url: 'api/people/me/pin', method: 'PUT', body }),
      invalidatesTags: ['session'],
    }),
    setUnits: build.mutation<{ ok: true }, ReaderUnits>({
      query: (body) => ({ url: 'api/people/me/units', method: 'PUT', body }),
      // Units may stand in what was fetched, as lines of a history do.
      invalidatesTags: ['session', 'unit'],
    }),
    people: build.query<ListedPerson[], void>({ query: () => 'api/people', providesTags: ['people'] }),
    addPerson: build.mutation<SignInCode, NewPerson>({
      query: (body) => ({ url: 'api/people', method: 'POST', body }),
      invalidatesTags: ['people'],
    }),
    alterPerson: build.mutation<ListedPerson, Seen & Omit<NewPerson, 'login'>>({
      query: ({ id, ...body }) => ({ url: `api/people/${id}`, method: 'PUT', body }),
      invalidatesTags: ['people'],
    }),
    switchOff: build.mutation<ListedPerson, Seen>({
      query: ({ id, seenVersion }) => ({
        url: `api/people/${id}/off`,
        method: 'POST',
        body: { seenVersion },
      }),
      invalidatesTags: ['people'],
    }),
    newCode: build.mutation<SignInCode, Seen>({
      query: ({ id, seenVersion }) => ({
        url: `api/people/${id}/code`,
        method: 'POST',
        body: { seenVersion },
      }),
      invalidatesTags: ['people'],
    }),
    saveDetails: build.mutation<ListedPerson, { id: string } & PersonalDetails>({
      query: ({ id, ...body }) => ({ url: `api/people/${id}/details`, method: 'PUT', body }),
      invalidatesTags: ['people'],
    }),
    morning: build.query<MorningStand, void>({ query: () => 'api/shop/morning', providesTags: ['morning'] }),
    changeMorning: build.mutation<MorningStand, MorningMail>({
      query: (body) => ({ url: 'api/shop/morning', method: 'PUT', body }),
      invalidatesTags: ['morning'],
    }),
    sendMorning: build.mutation<{ ok: true }, void>({
      query: () => ({ url: 'api/shop/morning/send', method: 'POST' }),
    }),
    firstHour: build.query<FirstHour, void>({
      query: () => 'api/shop/first-hour',
      // Whatever of it is added, it is asked again.
      providesTags: ['session', 'people', 'tools', 'fleet', 'jobs'],
    }),
    backups: build.query<Backups, void>({ query: () => 'api/shop/backups' }),
    changeSettings: build.mutation<ShopSettings, ShopSettings>({
      query: (body) => ({ url: 'api/shop/settings', method: 'PUT', body }),
      invalidatesTags: ['session'],
    }),
  }),
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
