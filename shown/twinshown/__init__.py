"""What the pages of a job say: from the job at hand to what is shown, without a database, a web server or a clock."""
