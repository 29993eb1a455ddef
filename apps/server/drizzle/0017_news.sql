-- Every change is told on one channel as "topic key", once a transaction, whoever made it.
CREATE FUNCTION foglio_tell() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  topic text := tg_argv[0];
  changed record := CASE WHEN tg_op = 'DELETE' THEN old ELSE new END;
  key text;
BEGIN
  EXECUTE format('SELECT ($1).%I::text', tg_argv[1]) INTO key USING changed;
  IF key IS NOT NULL THEN
    PERFORM pg_notify('foglio_news', topic || ' ' || key);
  END IF;
  RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE TRIGGER tell AFTER INSERT OR UPDATE OR DELETE ON jobs FOR EACH ROW EXECUTE FUNCTION foglio_tell('job', 'id');
--> statement-breakpoint
CREATE TRIGGER tell AFTER UPDATE ON contents FOR EACH ROW EXECUTE FUNCTION foglio_tell('file', 'sha256');
--> statement-breakpoint
CREATE TRIGGER tell AFTER INSERT OR UPDATE OR DELETE ON series FOR EACH ROW EXECUTE FUNCTION foglio_tell('series', 'id');
--> statement-breakpoint
CREATE TRIGGER tell AFTER INSERT OR UPDATE OR DELETE ON series_rows FOR EACH ROW EXECUTE FUNCTION foglio_tell('series', 'series_id');
--> statement-breakpoint
CREATE TRIGGER tell AFTER INSERT OR UPDATE ON deliveries FOR EACH ROW EXECUTE FUNCTION foglio_tell('delivery', 'id');
--> statement-breakpoint
CREATE TRIGGER tell_series AFTER INSERT OR UPDATE ON deliveries FOR EACH ROW EXECUTE FUNCTION foglio_tell('series', 'series_id');
--> statement-breakpoint
-- Not its profile: that is entered each time it is asked, and told by who asked.
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE OF papers, name, uri ON printers FOR EACH ROW EXECUTE FUNCTION foglio_tell('printer', 'id');
