import { numberFrom } from "@/ui/numbers";
import { answer, api, type Schemas } from "@/api/client";
import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { ASSUMPTION_NAMES } from "@/ui/assumptionNames";
import { Choice, TextField } from "@/ui/fields";
import { Loading, ProblemNotice } from "@/ui/notices";
import { useTypedForm } from "@/ui/typed";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Happened } from "./Happened";
import { People } from "./People";

type Depot = Schemas["DepotShown"];

const SCHOOLS: Record<string, string> = {
  "prove first": "prove first: only what was tested counts",
  "trust the code": "trust the code that the board shows",
  "how often it fails": "go by how often this kind of board was the cause before",
};
const CARRY: Record<string, string> = {
  functions: "by its functions",
  table: "by the leaflet’s table",
  positions: "position for position",
  learning: "by learning",
};

/** How the depot works: its policies, and what sums of costs assume. */
export function DepotPage() {
  const depot = useQuery({ queryKey: ["depot"], queryFn: () => answer(api.GET("/api/depot")) });
  const lead = useSession().data?.keeps_catalogue === true;
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      {depot.isPending && <Loading what="Reading the depot’s policies" />}
      <ProblemNotice problem={depot.error} />
      {depot.data && <Policies depot={depot.data} />}
      <People />
      {lead && <Happened />}
    </main>
  );
}

function Policies({ depot }: { depot: Depot }) {
  const queries = useQueryClient();
  const may = useSession().data?.keeps_catalogue === true;
  const form = useTypedForm("policies", {
    school: depot.rule_out_school,
    agreed: depot.school_when_agreed ?? "functions",
    not: depot.school_when_not ?? "functions",
    companions: depot.change_companions,
    second: depot.second_person ?? false,
    dead: String(depot.dead_v ?? 3),
    own: depot.own_figures ?? false,
    currency: depot.currency ?? "",
    locale: depot.locale ?? "en-gb",
    assumed: {} as Record<string, string>,
  });
  const { school, agreed, not, companions, second, dead, own, currency, locale, assumed } = form.fields;
  const { set } = form;
  const save = useMutation({
    mutationFn: () => {
      const numbers = Object.entries(assumed).map(([name, text]) => [name, numberFrom(text)] as const);
      return answer(
        api.PUT("/api/depot", {
          body: {
            rule_out_school: school,
            change_companions: companions,
            school_when_agreed: agreed,
            school_when_not: not,
            second_person: second,
            dead_v: numberFrom(dead),
            own_figures: own,
            currency: currency.trim().toUpperCase(),
            locale,
            assumptions: { ...depot.assumptions, ...Object.fromEntries(numbers) },
          },
        }),
      );
    },
    onSuccess: (now) => {
      queries.setQueryData(["depot"], now);
      form.forget();
    },
  });
  return (
    <>
      <h1>{depot.name}</h1>
      {!may && <p>Only a parts lead changes these.</p>}
      <Choice
        label="When suspects are weighed"
        value={school}
        disabled={!may}
        onChange={(event) => set({ school: event.target.value })}
      >
        {depot.schools.map((each) => (
          <option key={each} value={each}>
            {SCHOOLS[each] ?? each}
          </option>
        ))}
      </Choice>
      {(
        [
          ["Carry over, proposed where the schools agree", agreed, "agreed"],
          ["Carry over, proposed where they disagree", not, "not"],
        ] as const
      ).map(([label, value, name]) => (
        <Choice
          key={label}
          label={label}
          value={value}
          disabled={!may}
          onChange={(event) => set({ [name]: event.target.value })}
        >
          {depot.carry_schools.map((each) => (
            <option key={each} value={each}>
              {CARRY[each] ?? each}
            </option>
          ))}
        </Choice>
      ))}
      <Policy checked={companions} disabled={!may} onChange={(checked) => set({ companions: checked })}>
        Companions are changed along with a board (else they are left)
      </Policy>
      <Policy checked={second} disabled={!may} onChange={(checked) => set({ second: checked })}>
        A second person signs each job before it is closed
      </Policy>
      <div className="max-w-sm">
        <TextField
          label="A machine counts as dead below (V)"
          hint="At most 10 V. Where a supply of the machine is low, a tenth of it counts instead."
          inputMode="decimal"
          value={dead}
          disabled={!may}
          onChange={(event) => set({ dead: event.target.value })}
        />
      </div>
      <h2>Figures for sums of costs</h2>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="Currency"
          hint="Three letters, such as EUR. Stands before every amount on papers."
          maxLength={3}
          value={currency}
          disabled={!may}
          onChange={(event) => set({ currency: event.target.value })}
        />
        <Choice
          label="Numbers on papers are written as in"
          value={locale}
          disabled={!may}
          onChange={(event) => set({ locale: event.target.value })}
        >
          {Object.entries(depot.locales).map(([code, name]) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </Choice>
      </div>
      <div className="grid gap-3 sm:grid-cols-2">
        {Object.entries(depot.assumptions).map(([name, value]) => (
          <TextField
            key={name}
            label={ASSUMPTION_NAMES[name] ?? name}
            inputMode="decimal"
            value={assumed[name] ?? String(value)}
            disabled={!may}
            onChange={(event) => set({ assumed: { ...assumed, [name]: event.target.value } })}
          />
        ))}
      </div>
      <Policy checked={own} disabled={!may} onChange={(checked) => set({ own: checked })}>
        All of these figures are our own. Else those left as they came count as not entered, and papers print no sum.
      </Policy>
      <ProblemNotice problem={save.error} />
      {save.isSuccess && <p role="status">Kept.</p>}
      {may && (
        <Button kind="main" className="self-start" disabled={save.isPending} onClick={() => save.mutate()}>
          Keep these
        </Button>
      )}
    </>
  );
}

type PolicyProps = { checked: boolean; disabled: boolean; onChange: (checked: boolean) => void; children: string };

function Policy({ checked, disabled, onChange, children }: PolicyProps) {
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        className="size-6 shrink-0"
        checked={checked}
        disabled={disabled}
        onChange={(event) => onChange(event.target.checked)}
      />
      {children}
    </label>
  );
}
