UPDATE `jobs` SET `picture` = (
  SELECT json_extract(shot.value, '$.name') FROM json_each(`jobs`.`document`, '$.shots') AS shot
  WHERE json_extract(shot.value, '$.setId') IS NULL ORDER BY shot.key LIMIT 1
) WHERE `state` = 'camera' AND json_valid(`document`);--> statement-breakpoint
UPDATE `jobs` SET `picture` = (
  SELECT json_extract(shot.value, '$.name') FROM json_each(`jobs`.`document`, '$.shots') AS shot
  WHERE NOT coalesce(json_extract(shot.value, '$.done'), 0) ORDER BY shot.key LIMIT 1
), `waiting` = (
  SELECT count(*) FROM json_each(`jobs`.`document`, '$.shots') AS shot
  WHERE NOT coalesce(json_extract(shot.value, '$.done'), 0)
) WHERE `state` = 'shooting' AND json_valid(`document`);--> statement-breakpoint
ALTER TABLE `jobs` DROP COLUMN `next`;
