# The ends of all jobs' chains: what a record of a moment is named by.
HEADS="select job_id, count(*), (array_agg(digest order by number desc))[1] from jobs_entry group by job_id order by job_id"

# point_of FILE: the digest of the chains' ends, its first sixteen digits in fours, as a seal is written
point_of() { sha256sum "$1" | cut -c1-16 | sed 's/..../& /g; s/ $//'; }

# has_head FILE DIGITS: whether a point, or the end of one job's chain, begins with these digits
has_head() { point_of "$1" | tr -d ' ' | grep -q "^$2" || cut -d'|' -f3 "$1" | grep -q "^$2"; }
