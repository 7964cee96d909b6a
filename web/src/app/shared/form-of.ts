/** The fields of a form that was sent, by their names, without spaces round them. */
export function fieldsOf(event: Event): (name: string) => string {
  event.preventDefault();
  const fields = new FormData(event.target as HTMLFormElement);
  return (name) => {
    const value = fields.get(name);
    return typeof value === 'string' ? value.trim() : '';
  };
}
