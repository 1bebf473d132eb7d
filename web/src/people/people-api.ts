import type { FirstPerson, NewPerson, Person, Session } from '@lanternwright/contract/people';
import { api } from '../api.ts';

const peopleApi = api.injectEndpoints({
  endpoints: (build) => ({
    session: build.query<Session, void>({ query: () => 'api/people/session', providesTags: ['session'] }),
    signIn: build.mutation<Person, { login: string; password: string }>({
      query: (body) => ({ url: 'api/people/session', method: 'POST', body }),
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
    signOut: build.mutation<{ ok: true }, void>({
      query: () => ({ url: 'api/people/session', method: 'DELETE' }),
      async onQueryStarted(_arg, { dispatch, queryFulfilled }) {
        await queryFulfilled;
        dispatch(api.util.resetApiState());
      },
    }),
    people: build.query<Person[], void>({ query: () => 'api/people', providesTags: ['people'] }),
    addPerson: build.mutation<Person, NewPerson>({
      query: (body) => ({ url: 'api/people', method: 'POST', body }),
      invalidatesTags: ['people', 'session'],
    }),
  }),
});

export const {
  useSessionQuery,
  useSignInMutation,
  useSignInAsDemoMutation,
  useFirstPersonMutation,
  useSignOutMutation,
  usePeopleQuery,
  useAddPersonMutation,
} = peopleApi;

/** Who is signed in; pages behind the door can rely on somebody being there. */
export function usePerson(): Person | null {
  return useSessionQuery().data?.person ?? null;
}
