"""The full-text index over the library, kept by triggers; trigrams, so that a part of a number is found."""

from django.db import migrations

COLUMNS = "number, maker, text, part_class, ratings"
NEW = "new.rowid, new.number, new.maker, new.text, new.part_class, new.ratings"
OLD = "'delete', old.rowid, old.number, old.maker, old.text, old.part_class, old.ratings"
INSERT = f"INSERT INTO library_search(rowid, {COLUMNS}) VALUES ({NEW});"
DELETE = f"INSERT INTO library_search(library_search, rowid, {COLUMNS}) VALUES ({OLD});"

MAKE = [
    f"CREATE VIRTUAL TABLE library_search USING fts5({COLUMNS}, content='library_librarypart', tokenize='trigram');",
    f"CREATE TRIGGER library_in AFTER INSERT ON library_librarypart BEGIN {INSERT} END;",
    f"CREATE TRIGGER library_out AFTER DELETE ON library_librarypart BEGIN {DELETE} END;",
    f"CREATE TRIGGER library_new AFTER UPDATE ON library_librarypart BEGIN {DELETE} {INSERT} END;",
]
DROP = [
    "DROP TRIGGER library_new;",
    "DROP TRIGGER library_out;",
    "DROP TRIGGER library_in;",
    "DROP TABLE library_search;",
]


class Migration(migrations.Migration):
    dependencies = [("library", "0001_initial")]
    operations = [migrations.RunSQL(MAKE, DROP)]
