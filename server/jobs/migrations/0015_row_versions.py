"""A version on every row that kept answers hang on: a new number with every change, whoever makes it and however."""

from django.db import migrations

TABLES = (
    "jobs_job", "jobs_otherboard", "people_depot", "people_person", "catalogue_board", "catalogue_family",
    "catalogue_boardpicture",
)  # fmt: skip
COUNTED = """
create sequence row_versions;
create function new_row_version() returns trigger language plpgsql as $$
begin
  new.row_version := nextval('row_versions');
  return new;
end $$;
""" + "".join(
    f"""
alter table {table} add column row_version bigint not null default nextval('row_versions');
create trigger row_changed before update on {table} for each row execute function new_row_version();
"""
    for table in TABLES
)
UNCOUNTED = (
    "".join(f"drop trigger row_changed on {table}; alter table {table} drop column row_version;\n" for table in TABLES)
    + "drop function new_row_version; drop sequence row_versions;"
)


class Migration(migrations.Migration):
    dependencies = [
        ("jobs", "0014_opened_as"),
        ("people", "0009_money"),
        ("catalogue", "0010_marking_lacking"),
    ]
    operations = [migrations.RunSQL(COUNTED, UNCOUNTED)]
