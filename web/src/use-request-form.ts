import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, type DefaultValues, type FieldValues, type Path } from 'react-hook-form';
import type { z } from 'zod';
import { problemFields } from './api.ts';

/**
 * A form of a request: what is typed is checked before it is sent, and what the server refuses stands at its field.
 * @param schema from what is typed to what is asked for, with words for what is wrong
 * @param error what the server answered last, if it refused
 * @param paths fields that the server calls otherwise, by its name for them
 * @returns the form, with `field` for an input's name, handlers and error, and `errorOf` alone
 */
export function useRequestForm<Typed extends FieldValues, Asked>(
  schema: z.ZodType<Asked, Typed>,
  start: DefaultValues<Typed>,
  error: unknown,
  paths: Readonly<Record<string, Path<Typed>>> = {},
) {
  const form = useForm<Typed, unknown, Asked>({ resolver: zodResolver(schema), defaultValues: start });
  const refused: Record<string, string> = Object.fromEntries(
    Object.entries(problemFields(error)).map(([path, message]) => [paths[path] ?? path, message]),
  );
  const errorOf = (name: Path<Typed>): string | undefined => {
    const { error: own } = form.getFieldState(name, form.formState);
    // What is wrong with a list as a whole stands at its root.
    return own?.root?.message ?? own?.message ?? refused[name];
  };
  return {
    ...form,
    errorOf,
    field: (name: Path<Typed>) => ({ ...form.register(name), error: errorOf(name) }),
  };
}
