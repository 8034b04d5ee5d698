# frozen_string_literal: true

# Long work in a process of its own, so that the server's other answers do not wait for it. It speaks in lines of JSON
# on standard output: { "progress" => 0..1, "words" }, { "ready" => true } when it wants to write (and waits for a
# line), and last { "done" => ... } or { "faults" => [...] }. Its task comes as the first line on standard input:
# [TASK, ARGUMENTS, PROCESSES], the last how many it may split into. Without one it ends.
require_relative "packages"
require_relative "environment"
require_relative "work/tasks"

$stdout.sync = true
# Whoever plays, draws and is answered meanwhile goes first.
Process.setpriority(Process::PRIO_PROCESS, 0, 10)
ActiveRecord::Base.name # the rest of the package is loaded by its first use: while there is time
line = $stdin.gets or exit
task, arguments, Spread.processes = JSON.parse(line)
begin
  Database.connect(ENV.fetch("SATCHEL_DB"), alone: false)
  puts JSON.generate("done" => Tasks.new(arguments).public_send(Tasks::NAMES.fetch(task)))
rescue KindSatchel::InvalidInput => e
  puts JSON.generate("faults" => e.faults.first(KindSatchel::Faults::MOST).map(&:to_h),
                     "missing" => e.is_a?(KindSatchel::NotFound))
rescue Database::Trouble => e
  puts JSON.generate("trouble" => [e.status, e.code, e.message])
rescue Errno::ENOSPC, Errno::EDQUOT
  puts JSON.generate("trouble" => [507, "disk_full",
                                   "The disk is full; nothing was written. Make room, then try again."])
rescue OpenSongs::Missing
  puts JSON.generate("gone" => true)
end
