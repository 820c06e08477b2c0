/** What is logged of an error: a database's quotes the values that it failed on, so only its kind and place are. */
export const withoutValues = ({ name, code, stack }: Error & { code?: string | undefined }) => ({
  type: name,
  code,
  message: '',
  stack:
    stack
      ?.split('\n')
      .filter((line) => line.startsWith('    at '))
      .join('\n') ?? '',
});
