import type { Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { Failed, Loading } from "../../components/states";
import { useReading } from "../../lib/reading";
import { useReader, useSaveSettings } from "../../lib/session";
import { Field, Select } from "../../ui/controls";
import { more } from "./moreStrings";
import { words } from "./strings";

type Schools = Schemas["Schools"];

export default function SchoolsPart() {
  const { settings, say } = useReader();
  const { day, compareWith } = useReading("day", "compareWith");
  const save = useSaveSettings();
  const told = routes.useQuery("get", "/api/schools", undefined, { staleTime: Number.POSITIVE_INFINITY });
  if (told.isPending) return <Loading what={words.schools} />;
  if (told.isLoadingError) return <Failed error={told.error} again={() => void told.refetch()} />;
  const schools = settings.schools as Schools;
  const choose = (key: string, answer: string) => {
    save.mutate(
      { ...settings, schools: { ...schools, [key]: answer } as Schools },
      { onSuccess: () => compareWith({ schools, aim: day.aim }) },
    );
  };
  return (
    <div>
      <p className="mb-2 text-[0.92rem] text-soft">{more.schoolsAbout}</p>
      {save.isError && <Failed error={save.error} />}
      <div className="grid gap-x-5 gap-y-3 min-[34rem]:grid-cols-2">
        {told.data.questions.map((question) => {
          const mine = schools[question.key as keyof Schools];
          const other = mine !== question.answers[0]?.key;
          return (
            <Field
              key={question.key}
              label={say(question.words)}
              hint={other ? say(more.isDefault(question.default_words)) : undefined}
            >
              {(p) => (
                <Select {...p} value={mine} onChange={(e) => choose(question.key, e.target.value)}>
                  {question.answers.map((answer) => (
                    <option key={answer.key} value={answer.key}>
                      {say(answer.words)}
                    </option>
                  ))}
                </Select>
              )}
            </Field>
          );
        })}
      </div>
    </div>
  );
}
