"""What is kept of the whole catalogue hangs on how often it changed."""

from django.db import migrations, models

TABLES = {
    "catalogue_board": "update", "catalogue_family": "update", "catalogue_guide": "update", "references_statement": "update",
    "references_outcome": "update",
    # that the parts desk is asked changes nothing of what it said
    "parts_offer": "update of price, stock, on_van, days, unknown, answered_at, fault",
}  # fmt: skip
# a row a statement, without waiting for anybody: which are seen says what was seen of the catalogue. Old ones go every hundredth
# time; no set of rows is ever seen twice
COUNTED = """
create function catalogue_changed() returns trigger language plpgsql as $$
declare here bigint;
begin
  insert into jobs_cataloguechange default values returning id into here;
  if here % 100 = 0 then
    delete from jobs_cataloguechange where id in
      (select id from jobs_cataloguechange where id < here - 100 for update skip locked);
  end if;
  return null;
end $$;
""" + "".join(
    f"create trigger catalogue_changed after insert or {update} or delete on {table} "
    "for each statement execute function catalogue_changed();\n"
    for table, update in TABLES.items()
)
UNCOUNTED = (
    "".join(f"drop trigger catalogue_changed on {table};\n" for table in TABLES) + "drop function catalogue_changed();"
)


class Migration(migrations.Migration):
    dependencies = [
        ("jobs", "0009_kept_answers"),
        ("catalogue", "0010_marking_lacking"),
        ("references", "0002_outcomes"),
        ("parts", "0001_initial"),
    ]
    operations = [
        migrations.CreateModel(
            name="CatalogueChange",
            fields=[("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID"))],
        ),
        migrations.RunSQL(COUNTED, UNCOUNTED),
    ]
