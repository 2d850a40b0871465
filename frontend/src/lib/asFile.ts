/** A file as the API takes it: one part of a form. */
export const asFile = (file: File) => ({
  body: { file: "" },
  bodySerializer: () => {
    const form = new FormData();
    form.append("file", file);
    return form;
  },
});
