"""That the parts desk is asked about a board for the first time changes nothing of what it said."""

from django.db import migrations

SAID = "update of price, stock, on_van, days, unknown, answered_at, fault"
COUNTED = f"""
drop trigger catalogue_changed on parts_offer;
create trigger catalogue_changed after {SAID} or delete on parts_offer
  for each statement execute function catalogue_changed();
create trigger catalogue_changed_by_answer after insert on parts_offer
  for each row when (new.answered_at is not null or new.fault <> '') execute function catalogue_changed();
"""
UNCOUNTED = f"""
drop trigger catalogue_changed_by_answer on parts_offer;
drop trigger catalogue_changed on parts_offer;
create trigger catalogue_changed after insert or {SAID} or delete on parts_offer
  for each statement execute function catalogue_changed();
"""


class Migration(migrations.Migration):
    dependencies = [("jobs", "0012_made_without_a_connection"), ("parts", "0001_initial")]
    operations = [migrations.RunSQL(COUNTED, UNCOUNTED)]
