import { Button, Checkbox, Radio, TextInput } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { noticeSetting } from '../api/business';
import { api, data, type Schemas } from '../api/client';
import { Loaded, Refusal } from '../design/States';
import { tell } from '../design/tell';
import { useServerForm } from '../design/useServerForm';
import { useTitle } from '../design/useTitle';

type Setting = Schemas['NoticeSetting'];
type Kind = Setting['kinds'][number];

const kinds: [Kind, string][] = [
  ['PAID', 'money comes by card'],
  ['DECLINED', 'a card is declined'],
  ['UNDELIVERED', 'a letter comes back'],
];

function NoticesForm({ setting }: { setting: Setting }) {
  const queries = useQueryClient();
  const form = useServerForm<Setting, Setting>({
    initial: setting,
    send: (typed) => data(api.PUT('/api/notice-setting', { body: typed })),
    onDone: async () => {
      await queries.invalidateQueries();
      tell('Saved.');
    },
  });
  const { values } = form.form;
  return (
    <form className="form" onSubmit={form.submit} noValidate>
      <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
        <legend>Tell me when</legend>
        {kinds.map(([kind, label]) => (
          <Checkbox
            key={kind}
            my={6}
            label={label}
            checked={values.kinds.includes(kind)}
            onChange={(e) =>
              form.form.setFieldValue(
                'kinds',
                e.currentTarget.checked
                  ? [...values.kinds, kind]
                  : values.kinds.filter((k: Kind) => k !== kind),
              )
            }
          />
        ))}
      </fieldset>
      <p className="faded small" style={{ margin: 0 }}>
        Open pages say it at once. By e-mail:
      </p>
      <Radio.Group
        aria-label="By e-mail"
        value={values.mail}
        onChange={(mail) => form.form.setFieldValue('mail', mail as Setting['mail'])}
      >
        <Radio my={6} value="EACH" label="each thing by itself" />
        <Radio my={6} value="EVENING" label="one letter of an evening, if anything happened" />
        <Radio my={6} value="NEVER" label="never" />
      </Radio.Group>
      {values.mail === 'EVENING' && (
        <TextInput label="The hour of the evening" maw={220} {...form.field('evening')} data-path="evening" />
      )}
      {values.mail !== 'NEVER' && (
        <TextInput
          label="To this address"
          maw={420}
          placeholder="your business’s own"
          type="email"
          {...form.field('address')}
          data-path="address"
        />
      )}
      <Refusal error={form.elsewhere} />
      <Button type="submit" loading={form.save.isPending} style={{ alignSelf: 'flex-start' }}>
        Save
      </Button>
    </form>
  );
}

/** What the business hears of, and how. */
export function NoticesPage() {
  useTitle('What you hear of');
  const setting = useQuery(noticeSetting);
  return (
    <>
      <h1>What you hear of</h1>
      <Loaded query={setting} what="what you hear of">
        {(s) => <NoticesForm key={s.version} setting={s} />}
      </Loaded>
    </>
  );
}
