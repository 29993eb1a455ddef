-- Documents are compressed within; trying to compress them once more takes longer than all the rest of storing them.
ALTER TABLE "content_chunks" ALTER COLUMN "data" SET STORAGE EXTERNAL;
